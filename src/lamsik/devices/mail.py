"""Mail: sent by SMTP, replies read from a maildir. Nothing here knows the shop."""

import mailbox
import smtplib
import ssl
from collections.abc import Iterator
from dataclasses import dataclass
from email import message_from_bytes
from email.message import EmailMessage
from email.policy import default
from email.utils import formatdate, make_msgid, parseaddr
from pathlib import Path

WAIT_S = 8.0
SECURITY = ("starttls", "tls", "none")
"""How the way to the server is kept secret; none is for a server on this machine."""
MOST_BYTES = 5_000_000
"""A larger letter is left to the mail program."""
MOST_REPLY = 20_000
"""Letters of a reply that are kept."""


@dataclass(frozen=True)
class Server:
    """Where mail is handed over, as whom."""

    host: str
    port: int
    security: str = "starttls"
    user: str = ""
    password: str = ""
    sender: str = ""


@dataclass(frozen=True)
class Reply:
    """A letter that came: its own id, the ids it answers, from whom, what it says."""

    mail_id: str
    answers: tuple[str, ...]
    sender: str
    subject: str
    text: str


class NotSent(Exception):
    """A letter did not go out; the message says why. `again` is whether trying later makes sense."""

    def __init__(self, why: str, again: bool) -> None:
        super().__init__(why)
        self.again = again


def new_id(sender: str) -> str:
    """An id for a letter, by which an answer names it."""
    return make_msgid(domain=parseaddr(sender)[1].partition("@")[2] or "localhost")


def send(server: Server, to: str, subject: str, text: str, mail_id: str) -> None:
    """Hand a letter over. Raises `NotSent`: a server that is silent, busy or refuses."""
    letter = EmailMessage()
    letter["From"], letter["To"], letter["Subject"] = server.sender, to, subject
    letter["Message-ID"], letter["Date"] = mail_id, formatdate(localtime=True)
    letter.set_content(text)
    try:
        with _opened(server) as line:
            if server.user:
                line.login(server.user, server.password)
            line.send_message(letter)
    except smtplib.SMTPAuthenticationError as error:
        raise NotSent("the mail server does not take the user or the password", again=False) from error
    except smtplib.SMTPRecipientsRefused as error:
        code = min((row[0] for row in error.recipients.values()), default=550)
        raise NotSent(f"the mail server does not take the address {to}", again=code < 500) from error
    except smtplib.SMTPResponseException as error:
        why = (
            error.smtp_error.decode("utf-8", "replace")
            if isinstance(error.smtp_error, bytes)
            else error.smtp_error
        )
        raise NotSent(
            f"the mail server says {error.smtp_code} {why[:120]}", again=error.smtp_code < 500
        ) from error
    except (OSError, smtplib.SMTPException, ValueError) as error:
        raise NotSent("the mail server does not answer", again=True) from error


def _opened(server: Server) -> smtplib.SMTP:
    context = ssl.create_default_context()
    if server.security == "tls":
        return smtplib.SMTP_SSL(server.host, server.port, timeout=WAIT_S, context=context)
    line = smtplib.SMTP(server.host, server.port, timeout=WAIT_S)
    if server.security == "starttls":
        try:
            line.starttls(context=context)
        except BaseException:
            line.close()
            raise
    return line


def replies(folder: Path) -> Iterator[Reply]:
    """The letters in a maildir that nobody has read; each is marked as read once it was taken. One that
    cannot be read is left as it is.
    """
    if not (folder / "new").is_dir():
        return
    box = mailbox.Maildir(str(folder), create=False)
    for key in sorted(box.keys()):
        letter = box.get_message(key)
        if letter.get_subdir() != "new":
            continue
        data = box.get_bytes(key)
        try:
            reply = _read(data) if len(data) <= MOST_BYTES else None
        except Exception:  # anyone may have written it, and anything may be wrong with it
            reply = None
        if reply is None:
            continue
        yield reply
        letter.set_subdir("cur")
        letter.add_flag("S")
        box[key] = letter


def _read(data: bytes) -> Reply:

    letter = message_from_bytes(data, policy=default)
    body = letter.get_body(preferencelist=("plain", "html"))
    text = str(body.get_content()) if body is not None else ""
    named = f"{letter.get('In-Reply-To', '')} {letter.get('References', '')}".split()
    return Reply(
        str(letter.get("Message-ID", "")).strip(),
        tuple(dict.fromkeys(named)),
        parseaddr(str(letter.get("From", "")))[1],
        str(letter.get("Subject", ""))[:200],
        text[:MOST_REPLY].strip(),
    )
