"""Letters: filled from the order, sent to the simulated mail house, answered, tried again."""

import urllib.error
import urllib.parse
import urllib.request
from datetime import timedelta
from pathlib import Path

import pytest

from lamsik.cli.shop import simulated
from lamsik.core.errors import Refused
from lamsik.core.orders.letters import PLACES, Template, is_mail
from lamsik.devices import mail
from lamsik.store import backup, letters, stores
from lamsik.store.tables import Customer, Message, Order, now
from lamsik.web.orders import post
from lamsik.words.letters import LETTERS
from tests.until import PATIENCE_S, until
from tests.web.pouring import rows
from tests.web.test_doing import opened

QUOTED = 26
WAY = {
    "host": "mail.example.org",
    "port": "587",
    "security": "starttls",
    "user": "",
    "sender": "bench@example.org",
    "maildir": "",
}
QUOTE = f"/orders/{QUOTED}/letter/quote"


@pytest.fixture(scope="module")
def house():
    with simulated("mail_house") as where:
        yield where


@pytest.fixture
def mailed(demo, house):
    """The demo shop with its mail at the house, and a customer with a mail address."""
    behave(house, "none")
    host, _, port = house["mail"].removeprefix("socket://").rpartition(":")
    kept = {"host": host, "port": int(port), "security": "none", "sender": "bench@lamsik.example"}
    with opened(demo) as session:
        stores.put_setting(
            session, "mail", {**kept, "user": "", "maildir": house["box"], "page": house["page"]}
        )
        customer = session.get_one(Customer, session.get_one(Order, QUOTED).customer_id)
        customer.facts = {**customer.facts, "mail": "tove@example.org"}
    return demo


def tell(house, **sent):
    with urllib.request.urlopen(
        house["page"], urllib.parse.urlencode(sent).encode(), timeout=PATIENCE_S
    ) as page:
        return page.read().decode()


def behave(house, fault):
    return tell(house, fault=fault)


def engine_and_home(visitor):
    app = visitor.http.application
    return app.extensions["engine"], Path(app.config["HOME"])


def send(visitor):
    answer = visitor.post(QUOTE, {"way": "send", "subject": "Your baits", "text": "Hello Tove,\nhere it is."})
    assert answer.status_code == 302
    return until(
        lambda: rows(visitor, Message)[-1], lambda letter: letter.state != "waiting" or letter.problem
    )


def test_a_letter_is_filled_with_the_figures_of_its_order(demo):
    text = demo.get(QUOTE).text
    for word in ("Hello Tove Ekmark", "3 × Ferry runner 90", "In all 235.00 EUR", "A0026"):
        assert word in text
    assert "Copy the letter" in text and "Send it" not in text  # no server, no address: it is copied
    answer = demo.post(
        QUOTE, {"way": "copied", "subject": "Yours", "text": "in {braces}"}, follow_redirects=True
    )
    assert "sent by you" in answer.text and rows(demo, Message)[-1].text == "in (braces)"
    for sent, says in (
        ({"way": "send", "subject": "S", "text": "T"}, "say where the shop's mail goes first"),
        ({"way": "copied", "subject": " ", "text": "T"}, "a subject of one line"),
    ):
        answer = demo.post(QUOTE, sent)
        assert answer.status_code == 422 and says in answer.text.replace("&#39;", "'")
    with opened(demo) as session:
        session.get_one(Customer, session.get_one(Order, QUOTED).customer_id).facts = {}
    assert (
        "a mail address on the customer"
        in demo.post(QUOTE, {"way": "send", "subject": "S", "text": "T"}).text
    )
    assert "one of quote" in demo.get(f"/orders/{QUOTED}/letter/poem").text


def test_a_letter_goes_to_the_house_and_its_answer_comes_to_the_order(mailed, house):
    letter = send(mailed)
    assert (letter.state, letter.address) == ("sent", "tove@example.org") and letter.mail_id
    page = behave(house, "none")
    assert "Your baits" in page and "Hello Tove" in page
    assert "answer says something" in _refused(house, answers="0", text="")
    assert "no such" in _refused(house, answers="99", text="x")
    number = page.split("name=answers value=")[1].split(">")[0]
    tell(house, answers=number, text="Yes, make them. — Töve")
    text = mailed.get(f"/orders/{QUOTED}").text
    assert "From them:" in text and "Yes, make them. — Töve" in text
    came = rows(mailed, Message)[-1]
    assert (came.state, came.order_id) == ("came", QUOTED)
    assert len([row for row in rows(mailed, Message) if row.state == "came"]) == 1  # taken in once
    mailed.get(f"/orders/{QUOTED}")
    assert len([row for row in rows(mailed, Message) if row.state == "came"]) == 1
    seen = mailed.get(f"/orders/customers/{came.customer_id}").text
    assert "Yes, make them." in seen
    history = demo_history(mailed, came.customer_id)
    assert "a letter written: Your baits" in history and "a letter went out" in history
    assert "a letter came: Re: Your baits" in history


def demo_history(visitor, key):
    return visitor.get(f"/history?of=customer&id={key}").text


def _refused(house, **sent):
    try:
        return tell(house, **sent)
    except urllib.error.HTTPError as error:
        with error:
            return error.read().decode()


@pytest.mark.parametrize(
    ("fault", "state", "says"), [("busy", "waiting", "451"), ("refuses", "failed", "554")]
)
def test_a_house_that_takes_nothing_is_said_and_tried_again(mailed, house, fault, state, says):
    behave(house, fault)
    letter = send(mailed)
    assert (letter.state, letter.tries) == (state, 1) and says in letter.problem
    text = mailed.get(f"/orders/{QUOTED}").text
    assert letter.problem.split(" ")[0] in text and "Try it again" in text
    behave(house, "none")
    mailed.post(f"/orders/letter/{letter.id}/again")
    again = until(lambda: rows(mailed, Message)[-1], lambda letter: letter.state == "sent")
    assert again.mail_id == letter.mail_id  # the same letter
    assert "one that has not gone out" in mailed.post(f"/orders/letter/{letter.id}/again").text


def test_a_server_that_is_silent_holds_nobody_up_and_is_tried_later(mailed, house, monkeypatch):
    monkeypatch.setattr(mail, "WAIT_S", 0.2)
    behave(house, "silent")
    engine, home = engine_and_home(mailed)
    with opened(mailed) as session:
        order = session.get_one(Order, QUOTED)
        letters.write(session, order, "quote", Template("S", "T"), letters.WAITING)
    assert post.deliver(engine, home) == 1
    letter = rows(mailed, Message)[-1]
    assert letter.problem == "the mail server does not answer" and letter.state == "waiting"
    with opened(mailed) as session:
        assert letters.due(session) == []  # not at once
        session.get_one(Message, letter.id).at = now() - timedelta(minutes=3)
        session.flush()
        assert len(letters.due(session)) == 1
        row = session.get_one(Message, letter.id)
        for _ in range(letters.MOST_TRIES):
            letters.failed(session, row, "silent", again=True)
        assert row.state == "failed"  # not for ever


def test_the_password_lies_beside_the_shop_and_in_no_backup(demo, tmp_path):
    way = {**WAY, "user": "bench"}
    assert demo.post("/orders/mail", {**way, "password": "s3cret-word"}).status_code == 302
    _, home = engine_and_home(demo)
    assert post.password(home) == "s3cret-word"
    assert (home / post.PASSWORD).stat().st_mode & 0o077 == 0
    backup.backup(home, tmp_path / "shop.lamsik")
    assert b"s3cret-word" not in (tmp_path / "shop.lamsik").read_bytes()
    text = demo.get("/orders/mail").text
    assert "s3cret-word" not in text and "one is kept" in text
    demo.post("/orders/mail", way)
    assert post.password(home) == "s3cret-word"  # nothing typed leaves it
    demo.post("/orders/mail", {**way, "forget": "1"})
    assert post.password(home) == ""


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ({"port": "mail"}, "a port, 1 to 65535"),
        ({"security": "perhaps"}, "one of starttls"),
        ({"sender": "bench"}, "own mail address"),
        ({"security": "none"}, "without one only for a server on this machine"),
        ({"maildir": "/nowhere/at/all"}, "a folder with cur, new and tmp in it"),
    ],
)
def test_a_way_for_mail_that_cannot_be_is_said_and_stays_typed(demo, sent, says):
    answer = demo.post("/orders/mail", {**WAY, **sent})
    assert answer.status_code == 422 and says in answer.text.replace("&#39;", "'")
    assert 'value="mail.example.org"' in answer.text


def test_the_shops_own_words_take_the_place_of_those_that_ship(demo):
    demo.post("/orders/mail/template/quote", {"subject": "For {name}", "text": "Dear {name}, {total}"})
    assert "Dear Tove Ekmark, 235.00 EUR" in demo.get(QUOTE).text
    wrong = demo.post("/orders/mail/template/quote", {"subject": "For {her}", "text": ""})
    assert wrong.status_code == 422 and "a place that can be filled" in wrong.text
    assert "one of quote" in demo.post("/orders/mail/template/poem", {"subject": "x", "text": ""}).text
    demo.post(
        "/orders/mail/template/quote", {"subject": LETTERS["quote"].subject, "text": LETTERS["quote"].text}
    )
    with opened(demo) as session:
        assert stores.setting(session, "letters")["own"] == {}
        demo_has = letters.came(session, "<1@x>", ["<nobody@x>"], "stranger@example.org", "Hi", "who am I")
        assert demo_has is None  # nobody is known by it


def test_what_a_value_holds_is_no_place_again():
    filled = Template("To {name}", "{lines}").filled(
        {"name": "{order}\nBcc: all@example.org", "lines": "{shop}"}
    )
    assert filled.subject == "To {order} Bcc: all@example.org" and filled.text == "{shop}"
    for words in LETTERS.values():
        assert "{" not in words.filled(dict.fromkeys(PLACES, "x")).text
    with pytest.raises(Refused):
        Template("two\nlines", "")
    assert is_mail("a@example.org") and not is_mail("a@b") and not is_mail("a@x.org, b@x.org")
