"""Lists in pages, fields that find the rest by typing, and cards that are drawn once."""

import re

import pytest
from sqlmodel import Session, select

from lamsik.store import documents, orders, pieces
from lamsik.store.database import FILE_NAME, open_database, session_of
from lamsik.store.paging import MOST, page
from lamsik.store.tables import Card, Document, Order, Piece
from lamsik.web import cards
from tests import demo_rows as rows
from tests.conftest import lay
from tests.demo_rows import FERRY_RUNNER
from tests.lean import state
from tests.shops import closed
from tests.web.conftest import visit

NUMBER = re.compile(r'<a href="/pieces/\d+">(P\d+)</a>')


@pytest.fixture(scope="module")
def many_file(demo_file, tmp_path_factory):
    """Sixty schemes, 120 pieces and as many orders more than the demo has."""
    home = tmp_path_factory.mktemp("many")
    lay(demo_file, home)
    engine = open_database(home)
    with session_of(engine) as session:
        scheme = session.exec(select(Document).where(Document.kind == "scheme")).first()
        content = documents.content(session, scheme)
        for n in range(60):
            documents.create(
                session,
                "scheme",
                documents.next_code(session, "scheme", "S"),
                {**content, "name": f"Zander {n:02}"},
            )
        body = session.exec(select(Document).where(Document.kind == "body")).first()
        customer = orders.customer_named(session, "Tove Many")
        for _ in range(120):
            pieces.start(session, body)
            orders.place(
                session,
                Order(number=orders.next_number(session), customer_id=0, title="bait", search=""),
                customer,
            )
    closed(engine)
    return home / FILE_NAME


@pytest.fixture
def many(many_file, demo_home, application, monkeypatch):
    lay(many_file, demo_home)
    yield visit(application, demo_home, monkeypatch)
    application.extensions["engine"].dispose()


def walked(visitor, url):
    """The pages of a list, each reached by the link of the one before."""
    found = []
    while url:
        text = visitor.get(url).text
        found.append(text)
        link = re.search(r'rel="next" href="([^"]+)"', text)
        url = link.group(1).replace("&amp;", "&") if link else ""
    return found


def test_every_piece_stands_on_one_page_the_newest_first(many):
    numbers = [number for text in walked(many, "/pieces") for number in NUMBER.findall(text)]
    with session_of(many.http.application.extensions["engine"]) as session:
        assert (
            numbers == [row.number for row in session.exec(pieces.listed()).all()] and len(numbers) > 2 * MOST
        )


def test_a_search_stays_asked_from_page_to_page_and_back(many):
    pages = walked(many, "/orders?q=Tove+Many")
    assert len(pages) == 3 and all('value="Tove Many"' in text for text in pages)
    assert sum(len(re.findall(r'<td><a href="/orders/\d+">', text)) for text in pages) == 120
    assert 'rel="prev" href="/orders?q=Tove+Many&amp;page=1"' in pages[1] and 'rel="prev"' not in pages[0]


@pytest.mark.parametrize("asked", ["0", "-3", "x", "999999999", "1e3", "²"])
def test_a_page_that_is_none_is_the_first_or_an_empty_one(many, asked):
    assert many.get(f"/pieces?page={asked}").status_code == 200


def test_a_page_says_whether_more_follow(session):
    orders.customer_named(session, "One")
    orders.customer_named(session, "Two")
    assert [
        (page(session, orders.customers(), n, 1).more, len(page(session, orders.customers(), n, 1).rows))
        for n in (1, 2, 3)
    ] == [(True, 1), (False, 1), (False, 0)]
    assert page(session, orders.customers(), 1, 2).alone and not page(session, orders.customers(), 1, 1).alone


def test_a_field_of_many_shows_the_first_and_finds_the_rest(many):
    text = many.get("/orders/new").text
    assert (
        'data-find="/find/scheme"' in text
        and "Zander 59" not in text
        and 'data-find="/find/customer"' not in text
    )
    found = many.get("/find/scheme?q=zander 59").get_json()
    assert [row["words"].split(" (")[0] for row in found] == ["Zander 59"]
    assert len(many.get("/find/scheme?q=zander").get_json()) == MOST
    assert many.get("/find/nothing?q=a").status_code == 404


def test_what_was_found_by_typing_is_still_chosen_when_the_form_comes_back(many):
    key = many.get("/find/scheme?q=zander 59").get_json()[0]["key"]
    answer = many.post("/orders/new", {"customer": "", "quantity": "1", "scheme": key}, page="/orders/new")
    assert answer.status_code == 422 and re.search(rf'<option selected value="{key}">Zander 59', answer.text)


def test_search_shows_the_first_of_each_kind_and_where_the_rest_is(many):
    text = many.get("/search?q=tove many").text
    assert len(re.findall(r'<a href="/orders/\d+">', text)) == 12 and 'href="/orders?q=tove+many"' in text


@pytest.mark.parametrize(
    "page",
    [
        f"/floats/{rows.TENCH_ANTENNA_2_5_G}",
        f"/floats/shots/{rows.WEIGHED_SHOT}",
        f"/paints/{rows.ZANDER_CLAY}",
        f"/mixes/products/{rows.CASTING_RESIN}",
        f"/moulds/{rows.STUBBY_FOUR_AT_ONCE}",
        f"/shapes/blades/{rows.ESTUARY_BLADE}",
    ],
)
def test_every_document_can_go_back_to_a_revision_and_forth(demo, page):
    was, rename = state(demo, page), {"do": "set", "path": "name", "text": "Another"}
    sent = {"document": was["document"], "base": was["base"], "edits": [rename], "save": True}
    demo.send(f"{page}/live", sent)
    assert f'href="{page}/revisions"' in demo.get(page).text
    listed = demo.get(f"{page}/revisions").text
    assert listed.count("Go back to this") == was["base"] and "Another" in listed
    demo.post(f"{page}/revisions/{was['base']}", {"base": was["base"] + 1})
    now = state(demo, page)
    assert now["document"] == was["document"] and now["base"] == was["base"] + 2
    assert "back to revision" in demo.get(f"{page}/revisions").text


class TestCards:
    def test_a_card_is_drawn_once_and_kept_until_its_look_changes(self, demo, monkeypatch):
        url = re.search(r'src="(/cards/[^"]+)"', demo.get("/shapes").text).group(1)
        engine, key = (
            demo.http.application.extensions["engine"],
            int(url.rsplit("/", 1)[1].removesuffix(".svg")),
        )
        first = demo.get(url)
        assert (
            first.mimetype == "image/svg+xml"
            and first.text.startswith("<svg")
            and "immutable" in first.headers["Cache-Control"]
        )
        with session_of(engine) as session:
            session.get_one(Card, key).svg = "<svg>kept</svg>"
        assert demo.get(url).text == "<svg>kept</svg>"
        with session_of(engine) as session:
            session.get_one(Card, key).look = "another"
        again = demo.get(url)
        assert again.text == first.text
        assert demo.get(url.replace(cards.look(), "old")).headers["Cache-Control"] == "no-store"

    def test_what_cannot_be_drawn_has_a_line_and_is_asked_again(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            row = documents.create(session, "body", "B-900", {"name": "Broken"})
            key = documents.revision(session, row).id
        answer = demo.get(f"/cards/{cards.look()}/{key}.svg")
        assert answer.text == cards.NOTHING and answer.headers["Cache-Control"] == "no-store"
        assert demo.get(f"/cards/{cards.look()}/99999.svg").status_code == 404
        assert demo.get(f"/cards/{cards.look()}/{key}/on/{key}.svg").text == cards.NOTHING

    def test_a_body_is_shown_in_each_scheme(self, demo):
        urls = re.findall(r'src="(/cards/[^"]+/on/[^"]+)"', demo.get(f"/paints/on/{FERRY_RUNNER}").text)
        assert len(urls) == 17 and len({demo.get(url).text for url in urls}) > 10


def test_pieces_at_work_are_counted_and_paged(many):
    with Session(many.http.application.extensions["engine"]) as session:
        going = [
            row
            for row in session.exec(select(Piece)).all()
            if row.stand != "shipped" and row.deleted_at is None
        ]
        assert pieces.count_going(session) == len(going)
    assert len(walked(many, "/pieces/unweighed")) == -(-len(going) // 24)
