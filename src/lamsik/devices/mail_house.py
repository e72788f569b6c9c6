"""The simulated mail house: a process of its own that takes letters by SMTP over a loopback port, with a
page to read what arrived and to answer it; answers are laid into a maildir.

`python -m lamsik.devices.mail_house` prints one line of JSON with its addresses and its maildir and runs
until its input is closed.
"""

import asyncio
import html
import mailbox
import shutil
import socket
import sys
import tempfile
import threading
from dataclasses import dataclass, field
from email import message_from_bytes
from email.message import EmailMessage
from email.policy import default
from email.utils import formatdate, make_msgid
from pathlib import Path
from typing import Any

from aiosmtpd.smtp import SMTP

from lamsik.devices import stand_in

FAULTS = ("none", "busy", "refuses", "silent")
MOST_LETTERS = 50
"""The newest that are kept."""


@dataclass
class MailHouse:
    """What arrived, and how it behaves."""

    folder: Path
    fault: str = "none"
    letters: list[EmailMessage] = field(default_factory=list)

    async def handle_DATA(self, _server: Any, _session: Any, envelope: Any) -> str:
        """Take a letter, or not."""
        if self.fault == "silent":
            await asyncio.sleep(60)
        if self.fault == "busy":
            return "451 the house is full today"
        if self.fault == "refuses":
            return "554 the house takes none of these"
        letter = message_from_bytes(bytes(envelope.content), policy=default)
        assert isinstance(letter, EmailMessage)
        self.letters = [*self.letters, letter][-MOST_LETTERS:]
        return "250 it is here"

    def set(self, values: dict[str, str]) -> str:
        """Set the fault, or answer a letter; an empty text, or what is wrong."""
        if values.get("fault") in FAULTS:
            self.fault = values["fault"]
            return ""
        number = values.get("answers", "")
        if not (number.isascii() and number.isdigit() and int(number) < len(self.letters)):
            return "there is no such letter"
        if not values.get("text", "").strip():
            return "an answer says something"
        self._answer(self.letters[int(number)], values["text"])
        return ""

    def _answer(self, letter: EmailMessage, text: str) -> None:
        answer = EmailMessage()
        answer["From"], answer["To"] = str(letter["To"]), str(letter["From"])
        answer["Subject"], answer["Date"] = f"Re: {letter['Subject']}", formatdate(localtime=True)
        answer["In-Reply-To"], answer["Message-ID"] = (
            str(letter["Message-ID"]),
            make_msgid(domain="mail.example"),
        )
        answer.set_content(text)
        mailbox.Maildir(str(self.folder), create=True).add(answer.as_bytes())

    def shown(self) -> str:
        """What arrived, the newest first, each with a form to answer it."""
        rows = []
        for number, letter in reversed(list(enumerate(self.letters))):
            body = letter.get_body(preferencelist=("plain",))
            text = str(body.get_content()) if body is not None else ""
            rows.append(
                f"<article><h2>{html.escape(str(letter['Subject']))}</h2>"
                f"<p>to {html.escape(str(letter['To']))}</p><pre>{html.escape(text)}</pre>"
                f"<form method=post><input type=hidden name=answers value={number}>"
                "<label>Answer <textarea name=text rows=3></textarea></label><button>Send the answer</button>"
                "</form></article>"
            )
        return "".join(rows) or "<p>Nothing has arrived.</p>"


def taking(house: MailHouse, listener: socket.socket, stop: threading.Event) -> None:
    """Take letters until it ends."""

    async def take() -> None:
        loop = asyncio.get_running_loop()
        server = await loop.create_server(
            lambda: SMTP(house, enable_SMTPUTF8=True, hostname="mail.example"), sock=listener
        )
        while not stop.is_set():
            await asyncio.sleep(0.1)
        server.close()

    asyncio.run(take())


def main() -> int:
    """Listen on two free loopback ports until the input is closed."""
    folder = Path(tempfile.mkdtemp(prefix="lamsik-mail-"))
    mailbox.Maildir(str(folder / "box"), create=True)
    house = MailHouse(folder / "box")

    def shown(problem: str) -> str:
        page = stand_in.page("mail_house.html", house, {"faults": (house.fault, FAULTS)}, problem)
        return page.replace("(what arrived)", house.shown())

    try:
        return stand_in.run(
            "A mail house that is not there.",
            "mail",
            stand_in.handler_of(house.set, shown),
            lambda listener, stop: taking(house, listener, stop),
            {"box": str(folder / "box")},
        )
    finally:
        shutil.rmtree(folder, ignore_errors=True)


if __name__ == "__main__":
    sys.exit(main())
