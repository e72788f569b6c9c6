"""Tablets that were let in: by the code of this start, listed with their last use, ended one by one or all
at once.
"""

import hmac
import ipaddress
import json
import logging
import os
import secrets
import threading
import time
from dataclasses import asdict, dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from flask import Blueprint, abort, current_app, flash, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from lamsik.web.lan.pipe import MARK

log = logging.getLogger("lamsik")

blueprint = Blueprint("pairing", __name__)
LOOPBACK_NAMES = frozenset({"127.0.0.1", "localhost", "::1"})

UNUSED = timedelta(days=14)
"""A tablet that was not used for so long has to be paired anew."""

FREE, FIRST_WAIT_S, LONGEST_WAIT_S = 5, 60.0, 3600.0
"""So many wrong codes cost nothing, from wherever they come; then each makes the next wait twice as long."""

DEVICES = (
    ("iPad", "an iPad"),
    ("iPhone", "an iPhone"),
    ("Android", "an Android tablet"),
    ("CrOS", "a Chromebook"),
    ("Windows", "a Windows computer"),
    ("Mac", "a Mac"),
    ("Linux", "a Linux computer"),
)
FILE = "pairings.json"


@dataclass
class Pairing:
    """One that was let in: what it seems to be, from where, since when, last used; kept past a restart on
    purpose, or not.
    """

    device: str
    address: str
    since: str
    last: str
    kept: bool = False


class Pairings:
    """All of them. Those that are kept on purpose lie beside the shop, for its owner's eyes only."""

    def __init__(self, home: Path) -> None:
        self.file, self.rows, self._lock = (
            home / FILE,
            {},
            threading.Lock(),
        )  # type: Path, dict[str, Pairing], threading.Lock
        self.wrong, self.open_from = 0, 0.0
        try:
            kept = json.loads(self.file.read_text(encoding="utf-8"))
            self.rows = {str(key): Pairing(**row) for key, row in kept.items()}
        except (OSError, ValueError, TypeError, AttributeError):
            pass  # none are kept, or what is there is no list of them: every tablet types the new code

    def add(self, agent: str, address: str) -> str:
        """Let one in; gives its key."""
        key, now = secrets.token_urlsafe(24), _now()
        with self._lock:
            self.wrong, self.open_from = 0, 0.0
            self.rows[key] = Pairing(
                next((says for mark, says in DEVICES if mark in agent), "a browser"), address[:60], now, now
            )
        return key

    def holds(self, key: object) -> bool:
        """Whether that key is let in; notes that it was used."""
        with self._lock:
            row = self.rows.get(key) if isinstance(key, str) else None
            if row is None:
                return False
            if datetime.now(UTC) - datetime.fromisoformat(row.last) > UNUSED:
                del self.rows[str(key)]
                self._write()
                return False
            was, row.last = row.last, _now()
            if row.kept and row.last[:10] != was[:10]:
                self._write()  # one that is kept and used must not look unused after a restart
            return True

    def end(self, key: str = "") -> None:
        """End one, or all."""
        with self._lock:
            self.rows = {other: row for other, row in self.rows.items() if key and other != key}
            self._write()

    def keep(self, key: str, kept: bool) -> None:
        """Keep one past a restart, or not."""
        with self._lock:
            if key in self.rows:
                self.rows[key].kept = kept
                self._write()

    def _write(self) -> None:
        kept = {key: asdict(row) for key, row in self.rows.items() if row.kept}
        half = self.file.with_suffix(".part")
        half.unlink(missing_ok=True)
        with os.fdopen(
            os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w", encoding="utf-8"
        ) as out:
            json.dump(kept, out)
        half.replace(self.file)

    def wait_s(self) -> float:
        """How long until a code may be tried again [s]; counted over all addresses together."""
        return max(self.open_from - time.monotonic(), 0.0)

    def missed(self, address: str) -> None:
        """A wrong code was sent."""
        with self._lock:
            self.wrong += 1
            if self.wrong >= FREE:
                self.open_from = time.monotonic() + min(
                    FIRST_WAIT_S * 2.0 ** (self.wrong - FREE), LONGEST_WAIT_S
                )
        log.warning("wrong pairing code from %s, the %d. in a row", address, self.wrong)


def _now() -> str:
    return datetime.now(UTC).replace(microsecond=0).isoformat()


def known() -> Pairings:
    """This shop's."""
    pairings: Pairings = current_app.extensions["pairings"]
    return pairings


def host_name() -> str:
    """The name by which the shop was asked for, without its port."""
    return (
        request.host.rsplit(":", 1)[0].strip("[]").lower()
        if not request.host.endswith("]")
        else request.host.strip("[]")
    )


def is_local() -> bool:
    """Whether this machine's own browser asks, by one of the names that mean this machine; never through
    the pipe.
    """
    if request.environ.get(MARK) or host_name() not in LOOPBACK_NAMES:
        return False
    try:
        return ipaddress.ip_address(request.remote_addr or "").is_loopback
    except ValueError:
        return False


@blueprint.route("/pair", methods=["GET", "POST"])
def pair() -> ResponseReturnValue:
    """Ask a tablet for the code that the shop printed at its start."""
    if request.method == "GET":
        return render_template("shared/pair.html", error="")
    wait = known().wait_s()
    if wait > 0:
        abort(
            429,
            f"Too many wrong codes. Wait {max(round(wait / 60), 1)} min, then type the six digits the shop"
            " printed at its start.",
        )
    if hmac.compare_digest(
        request.form.get("code", "").strip().encode(), current_app.config["PAIRING_CODE"].encode()
    ):
        session["paired"] = known().add(request.user_agent.string, request.remote_addr or "")
        session.permanent = True
        return redirect("/")
    known().missed(request.remote_addr or "")
    return (
        render_template(
            "shared/pair.html", error="That is not the code. It is printed where the shop was started."
        ),
        422,
    )


@blueprint.get("/tablets")
def tablets() -> str:
    """Who is let in."""
    rows = sorted(known().rows.items(), key=lambda item: item[1].last, reverse=True)
    shown = [
        (
            key,
            row,
            datetime.fromisoformat(row.since),
            datetime.fromisoformat(row.last),
            key == session.get("paired"),
        )
        for key, row in rows
    ]
    config, own = current_app.config, is_local()
    return render_template(
        "stores/tablets.html",
        rows=shown,
        days=UNUSED.days,
        lan=config["LAN"],
        doors=config["DOORS"],
        code=own and config["PAIRING_CODE"],
        certificate=config["CERTIFICATE"],
    )


@blueprint.post("/tablets/end")
def end() -> ResponseReturnValue:
    """End one, or all of them."""
    known().end(request.form.get("key", ""))
    flash(
        "It has to type the code again."
        if request.form.get("key")
        else "All tablets have to type the code again."
    )
    return redirect(url_for("pairing.tablets"))


@blueprint.post("/tablets/keep")
def keep() -> ResponseReturnValue:
    """Keep one past a restart, or not."""
    known().keep(request.form.get("key", ""), request.form.get("kept") == "1")
    return redirect(url_for("pairing.tablets"))
