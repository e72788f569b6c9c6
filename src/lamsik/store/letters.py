"""Letters: written, sent, tried again, answered; each with the order it is of."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from sqlalchemy import String, cast
from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.errors import require
from lamsik.core.orders.customers import mail_of
from lamsik.core.orders.letters import Template, is_mail
from lamsik.store import stores
from lamsik.store.tables import Customer, Message, Order, now
from lamsik.words.letters import LETTERS

WAITING, SENT, FAILED, COPIED, CAME = "waiting", "sent", "failed", "copied", "came"
MOST_TRIES = 6


def templates(session: Session) -> dict[str, Template]:
    """What letters begin as: the shop's own words, else those that ship."""
    own = stores.setting(session, "letters")["own"]
    return {**LETTERS, **{key: Template(*words) for key, words in own.items() if key in LETTERS}}


def keep_template(session: Session, key: str, subject: str, text: str) -> None:
    """The shop's own words for a letter; as it ships where they are the same. Raises `Refused`."""
    require(key in LETTERS, "letter", key, f"one of {', '.join(LETTERS)}")
    template = Template(subject.strip(), text.replace("\r\n", "\n"))
    own = {name: words for name, words in stores.setting(session, "letters")["own"].items() if name != key}
    if template != LETTERS[key]:
        own[key] = [template.subject, template.text]
    stores.put_setting(session, "letters", {"own": own})


def write(session: Session, order: Order, about: str, filled: Template, way: str) -> Message:
    """Keep a letter: to be sent, or as it was copied out. Raises `Refused` where mail has no address."""
    customer = session.get_one(Customer, order.customer_id)
    address = mail_of(customer.facts) or ""
    if way == WAITING:
        require(is_mail(address), "mail", address, "a mail address on the customer's page")
    row = Message(
        customer_id=customer.id or 0,
        order_id=order.id,
        about=about,
        address=address,
        subject=filled.subject,
        text=filled.text,
        state=way,
    )
    session.add(row)
    session.flush()
    return row


def of_order(session: Session, order: Order) -> Sequence[Message]:
    """The letters of an order, the newest first."""
    query = select(Message).where(Message.order_id == order.id)
    return session.exec(query.order_by(col(Message.id).desc()).limit(60)).all()


def of_customer(customer_id: int) -> SelectOfScalar[Message]:
    """The question for all letters to and from a customer, the newest first."""
    return select(Message).where(Message.customer_id == customer_id).order_by(col(Message.id).desc())


def due(session: Session) -> Sequence[Message]:
    """Letters that are to be sent now: new ones, and those to be tried again after a wait that doubles."""
    rows = session.exec(
        select(Message).where(Message.state == WAITING).order_by(col(Message.id)).limit(40)
    ).all()
    return [row for row in rows if row.tries == 0 or row.at + wait(row.tries) <= now()]


def wait(tries: int) -> timedelta:
    """How long after so many tries in vain until the next."""
    return timedelta(minutes=2**tries)


def sent(session: Session, row: Message, mail_id: str, at: datetime) -> None:
    """A letter went out."""
    row.state, row.mail_id, row.problem, row.at = SENT, mail_id, "", at
    session.add(row)


def failed(session: Session, row: Message, why: str, again: bool) -> None:
    """A letter did not go out: it is tried again later, where that makes sense."""
    row.tries += 1
    row.problem, row.at = why, now()
    row.state = WAITING if again and row.tries < MOST_TRIES else FAILED
    session.add(row)


def try_again(session: Session, row: Message) -> None:
    """A letter that did not go out is sent once more. Raises `Refused` for one that went."""
    require(row.state in (WAITING, FAILED), "letter", row.subject, "one that has not gone out")
    row.state, row.tries = WAITING, 0
    session.add(row)
    session.flush()


def waiting(session: Session) -> int:
    """How many letters wait to be sent."""
    return session.exec(select(func.count()).select_from(Message).where(Message.state == WAITING)).one()


def came(
    session: Session, mail_id: str, answers: Sequence[str], sender: str, subject: str, text: str
) -> Message | None:
    """A letter that came, put to the order it answers, else to whoever has that address; None where it is
    kept already, and where nobody is known by it.
    """
    if mail_id and session.exec(select(Message).where(Message.mail_id == mail_id)).first() is not None:
        return None
    asked = select(Message).where(col(Message.mail_id).in_([one for one in answers if one]))
    answered = session.exec(asked.order_by(col(Message.id).desc())).first() if answers else None
    customer_id = answered.customer_id if answered else _by_address(session, sender)
    if customer_id is None:
        return None
    row = Message(
        customer_id=customer_id,
        order_id=answered.order_id if answered else None,
        about="answer",
        address=sender,
        subject=subject,
        text=text,
        state=CAME,
        mail_id=mail_id,
    )
    session.add(row)
    session.flush()
    return row


def _by_address(session: Session, sender: str) -> int | None:
    """Who has that address."""
    if not is_mail(sender):
        return None
    facts = cast(col(Customer.facts), String)
    here = select(Customer).where(col(Customer.deleted_at).is_(None), col(Customer.erased_at).is_(None))
    rows = session.exec(here.where(facts.icontains(sender, autoescape=True))).all()
    return next((row.id for row in rows if mail_of(row.facts) == sender.casefold()), None)
