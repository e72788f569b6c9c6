"""Floats and blades at the bench: begun from their pages, their steps, what they weigh."""

import re

import pytest

from lamsik.core.floats.design import own_mass_g
from lamsik.documents.floats.document import to_float
from lamsik.store import documents, pieces, routes
from lamsik.store.database import session_of
from lamsik.store.tables import Document, Piece
from tests.demo_rows import ESTUARY_BLADE, FERRY_RUNNER, FOAM_PILOT, ZANDER_CLAY
from tests.web.pouring import rows


def begun(visitor, design):
    page = visitor.post("/pieces/start", {"design": str(design)}).headers["Location"]
    return page, rows(visitor, Piece)[-1]


def engine_of(visitor):
    return visitor.http.application.extensions["engine"]


@pytest.mark.parametrize(("design", "page_of"), [(FOAM_PILOT, "/floats"), (ESTUARY_BLADE, "/shapes/blades")])
def test_one_is_begun_on_its_page_goes_its_way_and_is_shipped(demo, design, page_of):
    assert "Make a piece" in demo.get(f"{page_of}/{design}").text
    page, piece = begun(demo, design)
    with session_of(engine_of(demo)) as session:
        row = session.get_one(Document, design)
        way = routes.of_document(session, row.kind, documents.content(session, row))
        assert routes.of(session, piece) == way and piece.order_id is None
    shown = demo.get(page).text
    assert f'href="{page_of}/{design}">{row.name}</a>' in shown and "Bench card" not in shown
    names = re.findall(r'aria-label="([^"]+): tick off"', shown)
    assert names == [step.name for step in way]
    for step in way:
        demo.post(f"{page}/steps/tick", {"step": step.key, "done": "1", "early": "1"})
    assert rows(demo, Piece)[-1].stand == "shipped"
    demo.post(f"{page_of}/{design}/delete")
    assert "its drawing is deleted" in demo.get(page).text


@pytest.mark.parametrize(
    ("design", "source"),
    [
        (FOAM_PILOT, {"source": {"kind": "not_for_sale", "note": ""}}),
        (ESTUARY_BLADE, {"source": "not_for_sale"}),
    ],
)
def test_a_shape_that_is_not_for_sale_says_so_where_one_is_made(demo, design, source):
    assert "may be sold is decided" not in demo.get(begun(demo, design)[0]).text
    with session_of(engine_of(demo)) as session:
        row = session.get_one(Document, design)
        documents.save(session, row, {**documents.content(session, row), **source}, row.current)
    assert "may be sold is decided" in demo.get(begun(demo, design)[0]).text


def test_a_float_is_weighed_against_what_it_should_weigh(demo):
    page, piece = begun(demo, FOAM_PILOT)
    with session_of(engine_of(demo)) as session:
        whole = own_mass_g(to_float(documents.content(session, session.get_one(Document, FOAM_PILOT))))
    assert f"{whole:.2f} g expected" in demo.get(page).text
    link = re.search(r'href="(/scale[^"]+)">Weigh it to its marks', demo.get(page).text)[1]
    scale = demo.get(link.replace("&amp;", "&")).text
    assert f'value="Foam pilot {piece.number}"' in scale and f'<option value="{FOAM_PILOT}" selected' in scale
    demo.post(f"{page}/weigh", {"target": "stage:cleared", "mass": "5.8 g", "instrument": "1"})
    assert f"{whole:.2f} g expected, 5.80 g weighed" in demo.get(page).text


def test_what_only_a_bait_has_is_refused_and_nothing_breaks(demo):
    page, piece = begun(demo, FOAM_PILOT)
    for target, says in (
        ("part:lip", "no such part"),
        ("water:carved", "is held under on the Scale"),
        ("stage:varnish", "or a part of the piece"),
    ):
        sent = {"target": target, "mass": "2 g", "instrument": "1", "temperature": "18 °C"}
        answer = demo.post(f"{page}/weigh", sent)
        assert answer.status_code == 422 and says in answer.text
    sent = {"target": "stage:carved", "mass": "two", "instrument": "1"}
    assert 'value="two"' in demo.post(f"{page}/weigh", sent).text
    for way in ("/card", "/card.pdf"):
        assert "has its drawings on its own page" in demo.get(page + way).text
    assert "has its drawings on its own page" in demo.post(f"{page}/use-advice").text
    answer = demo.post("/pieces/start", {"design": str(FOAM_PILOT), "line": "1"})
    assert answer.status_code == 422 and "others are made for stock" in answer.text
    assert demo.get(f"/tank/{FERRY_RUNNER}/stability?with=p{piece.id}").status_code == 404
    assert piece.number not in demo.get("/pieces/unweighed").text
    assert demo.post("/pieces/start", {"design": str(ZANDER_CLAY)}).status_code == 404


def test_lists_draw_them_and_baits_are_chosen_among_baits(demo):
    _, piece = begun(demo, ESTUARY_BLADE)
    assert piece.number in demo.get("/pieces").text
    with session_of(engine_of(demo)) as session:
        assert piece.number not in {row.number for row in session.exec(pieces.listed(kind="body")).all()}
        revision = documents.revision(session, session.get_one(Document, ESTUARY_BLADE)).id
    looks = re.search(r"/cards/([0-9a-f]+)/", demo.get("/").text)[1]
    assert "flat strip" in demo.get(f"/cards/{looks}/{revision}.svg").text
