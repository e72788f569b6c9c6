"""The shop's post: letters handed to the mail server beside the requests, tried again after a while; answers
put to their orders.
"""

import logging
import os
import threading
from contextlib import suppress
from pathlib import Path
from typing import Any

from flask import current_app
from sqlalchemy import Engine
from sqlmodel import Session

from lamsik.devices import mail
from lamsik.devices.mail import NotSent, Server
from lamsik.store import letters, stores
from lamsik.store.database import session_of
from lamsik.store.tables import Message, now
from lamsik.web.shared.db import db

PASSWORD = "mail.password"
"""The file beside the shop that holds it: no backup takes it along."""
EVERY_S = 30.0
log = logging.getLogger("lamsik")


def password(home: Path) -> str:
    """The password of the mail server; empty where none was given."""
    with suppress(OSError):
        return (home / PASSWORD).read_text(encoding="utf-8").strip()
    return ""


def keep_password(home: Path, text: str) -> None:
    """Keep it for the shop's owner alone; nothing typed takes it away."""
    path = home / PASSWORD
    path.unlink(missing_ok=True)
    if text:
        with os.fdopen(
            os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w", encoding="utf-8"
        ) as file:
            file.write(text)


def server(kept: dict[str, Any], home: Path) -> Server | None:
    """Where mail is handed over; None where the shop has no server."""
    if not kept["host"]:
        return None
    host, security, user, sender = (str(kept[name]) for name in ("host", "security", "user", "sender"))
    return Server(host, int(kept["port"]), security, user, password(home), sender)


def deliver(engine: Engine, home: Path) -> int:
    """Hand over what is due, one letter after the other, no lock held while the server thinks; how many are
    still waiting.
    """
    with Session(engine) as session:
        to = server(stores.setting(session, "mail"), home)
        due = [(row.id, row.address, row.subject, row.text, row.mail_id) for row in letters.due(session)]
    if to is None:
        return 0
    for key, address, subject, text, known in due:
        mail_id = known or mail.new_id(to.sender)
        try:
            mail.send(to, address, subject, text, mail_id)
        except NotSent as error:
            with session_of(engine) as session:
                row = session.get_one(Message, key)
                row.mail_id = mail_id  # tried again it is the same letter
                letters.failed(session, row, str(error), error.again)
        else:
            with session_of(engine) as session:
                letters.sent(session, session.get_one(Message, key), mail_id, now())
    with Session(engine) as session:
        return letters.waiting(session)


def collect(engine: Engine) -> int:
    """Put the answers in the maildir to their orders; how many."""
    with Session(engine) as session:
        folder = str(stores.setting(session, "mail")["maildir"])
    count = 0
    if folder:
        for reply in mail.replies(Path(folder)):
            subject = " ".join(reply.subject.split())[:200] or "no subject"
            with session_of(engine) as session:
                row = letters.came(session, reply.mail_id, reply.answers, reply.sender, subject, reply.text)
                count += row is not None
    return count


class PostOffice:
    """Hands over what waits, beside the requests, on a thread that lives as long as something waits."""

    def __init__(self, engine: Engine, home: Path) -> None:
        self.engine, self.home = engine, home
        self._wake, self._lock = threading.Event(), threading.Lock()
        self._is_open = False

    def nudge(self) -> None:
        """Look at once at what waits."""
        with self._lock:
            self._wake.set()
            if not self._is_open:
                self._is_open = True
                threading.Thread(target=self._work, daemon=True).start()

    def _work(self) -> None:
        try:
            while True:
                self._wake.clear()
                left = deliver(self.engine, self.home)
                if left:
                    self._wake.wait(EVERY_S)
                    continue
                with self._lock:
                    if not self._wake.is_set():
                        self._is_open = False
                        return
        except Exception:
            log.warning("the post stopped", exc_info=True)
            with self._lock:
                self._is_open = False


def nudge() -> None:
    """See to it that what waits goes out."""
    held = current_app.extensions
    if "post" not in held:
        held["post"] = PostOffice(held["engine"], Path(current_app.config["HOME"]))
    held["post"].nudge()


def look_for_answers() -> None:
    """Take in what answers lie in the maildir, before a page says what there is."""
    folder = str(stores.setting(db(), "mail")["maildir"])
    new = Path(folder) / "new" if folder else None
    try:
        is_there = new is not None and any(new.iterdir())
    except OSError:
        is_there = False
    if is_there:
        collect(current_app.extensions["engine"])
        db().rollback()  # what it read before is of a moment ago
