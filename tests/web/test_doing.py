"""Doing it: the finish map's page, cards, test patches, stencils, the final check of a piece, versions
kept.
"""

import io
import json
import re
from datetime import timedelta

import pytest

from lamsik.core.paints.zones import checks_of, zones_on
from lamsik.core.route.steps import MAKING, READY
from lamsik.documents.body.document import to_design
from lamsik.store import documents, pieces, routes
from lamsik.store.database import session_of
from lamsik.store.tables import Document, Order, OrderLine, PaintPatch, PaintTool, Piece, PieceStep, now
from lamsik.words.paints import CHECKS
from tests import demo_rows as shop
from tests.lean import state
from tests.web.pouring import rows

SEVEN = [f"P00{n}" for n in range(66, 73)]


def opened(visitor):
    return session_of(visitor.http.application.extensions["engine"])


def seven(visitor):
    return [row for row in rows(visitor, Piece) if row.number in SEVEN]


def card_of(visitor, chosen):
    return visitor.get("/paints/batch/card?" + "&".join(f"piece={row.id}" for row in chosen)).text


def test_a_jointed_body_shows_its_zones_its_order_and_where_a_dip_must_stop(demo):
    page = f"/paints/on/{shop.SPLIT_EEL}/doing"
    text = demo.get(page).text
    assert "Finish map of Split eel" in text and "a joint" in text and "paint, clear, brush</td>" in text
    assert all(CHECKS[check] in text for check in ("pivots_free", "ties_clear", "lip_clean"))
    assert "stop here" not in text and 'href="' + page in demo.get(f"/paints/on/{shop.SPLIT_EEL}").text
    with opened(demo) as session:
        row = session.get_one(Document, shop.SPLIT_EEL)
        content = documents.content(session, row)
        content["layers"][-1]["by"] = "dipped"
        documents.save(session, row, content, row.current)
    text = demo.get(page).text
    assert re.search(r"stop here, \d+ mm deep", text) and "the liquid climbs" in text
    demo.post("/pieces/start", {"design": str(shop.SPLIT_EEL)})
    made = rows(demo, Piece)[-1]
    dipped = f"coat:{content['layers'][-1]['key']}"
    ways = f"/pieces/{made.id}/steps"
    refused = demo.post(f"{ways}/tick", {"step": dipped, "done": "1"}, follow_redirects=True).text
    assert "Dipped to its mark and no deeper" in refused and "is not finished yet" in refused
    demo.post(f"{ways}/point", {"step": dipped, "point": "dip_stopped", "ticked": "1"})
    asked = demo.post(f"{ways}/tick", {"step": dipped, "done": "1"}, follow_redirects=True).text
    assert "is not finished yet" not in asked
    assert re.search(r"first, stop \d+ mm deep", card_of(demo, [rows(demo, Piece)[-1]]))
    assert "is dipped and this body has a joint" in str(
        state(demo, f"/paints/on/{shop.SPLIT_EEL}")["view"]["warnings"]
    )
    left = demo.post(f"{ways}/leave-out", {"step": dipped, "reason": "no clear"}, follow_redirects=True).text
    assert "each point is ticked" not in left


def test_a_warning_on_a_body_is_answered_there_and_taken_back(demo):
    page = f"/paints/on/{shop.SPLIT_EEL}"
    with opened(demo) as session:
        row = session.get_one(Document, shop.SPLIT_EEL)
        content = documents.content(session, row)
        content["layers"][-1]["by"] = "dipped"
        documents.save(session, row, content, row.current)

    def edited(*edits):
        held = state(demo, page)
        sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True}
        view = demo.send(f"/designs/{shop.SPLIT_EEL}/live", {**sent, "bench": "paints"}).get_json()["view"]
        return [row["key"] for row in view["warnings"]], view["layers"][-1]

    warnings, clear = edited()
    assert any("dip_stops" in key for key in warnings) and clear["doubted"]
    answered = {"do": "set", "path": clear["intended"], "text": "each half by itself, before they are hung"}
    warnings, clear = edited(answered)
    assert not any("dip_stops" in key for key in warnings) and clear["doubted"]
    assert clear["otherwise"] == "otherwise here: meant so"


def test_a_spray_card_has_every_cup_with_its_caution_and_the_number_it_is_signed_with(demo):
    (piece,) = (row for row in rows(demo, Piece) if row.number == "P0069")
    text = demo.get(f"/paints/piece/{piece.id}/card").text
    assert "Signal orange (S-010), version 1" in text and "Bright orange" in text
    assert re.search(r"3 × 15 µm dry.{0,60}1\.3 ml", text)
    assert "respirator for vapours" in text and "as with 2" in text and "safety data sheet" in text
    answer = demo.get(f"/paints/piece/{piece.id}/card.pdf")
    assert answer.mimetype == "application/pdf" and answer.data.startswith(b"%PDF")
    with opened(demo) as session:
        row = session.get_one(Document, piece.design_id)
        content = documents.content(session, row)
        kind = {"kind": "signature", "key": "signature1"}
        content["layers"].insert(3, {**content["layers"][3], **kind})
        kept = session.get_one(Piece, piece.id)
        kept.revision_id = documents.branch(session, row, content, row.current, "signed").id
        routes.follow(session, kept)
    assert "its number: P0069" in demo.get(f"/paints/piece/{piece.id}/card").text


def test_only_a_bait_has_a_spray_card(demo):
    demo.post("/pieces/start", {"design": str(shop.FOAM_PILOT)})
    assert demo.get(f"/paints/piece/{rows(demo, Piece)[-1].id}/card").status_code == 404


def test_seven_pieces_of_three_schemes_share_their_loads(demo):
    listed = demo.get("/paints/batch").text
    assert all(number in listed for number in SEVEN)
    chosen = seven(demo)
    text = card_of(demo, chosen)
    assert "7 pieces, 49 layers: 14 loads and 13 changes of colour instead of 42 loads" in text
    assert "28 saved; no order has fewer" in text and "respirator for vapours" in text
    with opened(demo) as session:
        for row in chosen:
            pieces.end_step(session, session.get_one(Piece, row.id), "coat:primer1")
    assert "7 pieces, 42 layers: 13 loads" in card_of(demo, chosen)  # what is done is not on it
    pdf = demo.get("/paints/batch/card.pdf?" + "&".join(f"piece={row.id}" for row in chosen))
    assert pdf.data.startswith(b"%PDF")


@pytest.mark.parametrize(
    ("asked", "says"),
    [
        ("", "tick at least one piece that has paint to come"),
        ("?piece=999999&piece=x&piece=-1", "tick at least one piece that has paint to come"),
        ("?" + "&".join(f"piece={n}" for n in range(1, 73)), "on one card: make two"),
    ],
)
def test_a_batch_of_nothing_or_of_too_much_is_refused(demo, asked, says):
    if says.startswith("on one"):
        with opened(demo) as session:
            for row in session.exec(pieces.listed(kind="body")).all():
                for step in routes.touched(session, row).values():
                    session.delete(step)
    answer = demo.get(f"/paints/batch/card{asked}")
    assert answer.status_code == 422 and says in answer.text


def test_a_test_patch_is_noted_seen_by_schemes_and_taken_out_and_back(empty):
    page = empty.post("/paints/new").headers["Location"]
    assert "Nobody here has tried water over epoxy" in str(state(empty, page)["view"]["warnings"])
    sent = {"patch-under": "epoxy", "patch-over": "water", "patch-after": "1/2 d", "patch-result": "held"}
    empty.post("/paints/known/add/patch", {**sent, "patch-note": "two strips"})
    (row,) = rows(empty, PaintPatch)
    assert (row.after_h, row.typed["after"], row.note) == (12.0, "1/2 d", "two strips")
    text = empty.get("/paints/known").text
    assert "held after 12 h" in text and "1/2 d" in text
    assert "water over epoxy" not in str(state(empty, page)["view"]["warnings"])
    gone = empty.post(f"/paints/known/remove/patch/{row.id}", follow_redirects=True).text
    assert rows(empty, PaintPatch) == []
    undo = re.search(r'action="(/today/history/take-back/[^"]+|[^"]*take[-_]back[^"]*)"', gone)[1]
    empty.post(undo.replace("&amp;", "&"))
    assert [one.note for one in rows(empty, PaintPatch)] == ["two strips"]


@pytest.mark.parametrize(
    ("what", "sent", "says"),
    [
        ("patch", {"patch-after": "soon"}, "cannot be read"),
        ("patch", {"patch-under": "butter"}, "Not a valid choice"),
        ("tool", {"tool-name": ""}, "Name it."),
        (
            "tool",
            {"tool-name": "Fruit net, fine", "tool-kind": "net", "tool-side": "both"},
            "one of that name",
        ),
    ],
)
def test_bad_patches_and_stencils_come_back_beside_their_field(demo, what, sent, says):
    whole = {"patch-under": "epoxy", "patch-over": "uv", "patch-after": "3 h", "patch-result": "held"}
    answer = demo.post(f"/paints/known/add/{what}", {**whole, **sent})
    assert answer.status_code == 422 and says in answer.text


def test_a_stencil_is_registered_for_a_body_and_stands_on_its_page(demo):
    sent = {"tool-name": "Eel rings", "tool-kind": "stencil", "tool-side": "left", "tool-hangs": "door"}
    gone = demo.post("/paints/known/add/tool", {**sent, "tool-body": str(shop.ZANDER_CLAY)})
    assert gone.status_code == 404  # a scheme is no body: nothing is registered for "any" in its stead
    demo.post("/paints/known/add/tool", {**sent, "tool-body": str(shop.SPLIT_EEL)})
    assert rows(demo, PaintTool)[-1].body_id == shop.SPLIT_EEL
    text = demo.get(f"/paints/on/{shop.SPLIT_EEL}/doing").text
    assert "Eel rings" in text and "hangs door" in text


def at_check(visitor, piece):
    """The piece with all done up to its final check."""
    with opened(visitor) as session:
        row = session.get_one(Piece, piece.id)
        for step in routes.of(session, row):
            if step.key == "check":
                return step
            pieces.end_step(session, row, step.key)
    raise AssertionError("no final check")


def test_a_piece_is_finished_once_each_point_is_ticked_on_it(demo):
    piece = seven(demo)[0]
    page, step = f"/pieces/{piece.id}", at_check(demo, piece)
    assert step.points == checks_of(zones_on(design_of(demo, piece)))
    tick = {"step": "check", "done": "1", "early": "1"}
    refused = demo.post(f"{page}/steps/tick", tick, follow_redirects=True).text
    assert "is not finished yet" in refused and CHECKS["lip_clean"] in refused
    answer = demo.post(f"{page}/steps/leave-out", {"step": "check", "reason": "in a hurry"})
    assert answer.status_code == 422 and "each point is ticked, or the piece is not finished" in answer.text
    past = {"step": "ship", "done": "1", "early": "1", "reason": "it is sent today"}
    assert "is not finished yet" in demo.post(f"{page}/steps/tick", past, follow_redirects=True).text
    assert seven(demo)[0].stand == MAKING
    for point in step.points[1:]:
        demo.post(f"{page}/steps/point", {"step": "check", "point": point, "ticked": "1"})
    again = demo.post(f"{page}/steps/tick", tick, follow_redirects=True).text
    assert CHECKS[step.points[0]] in again and "is not finished yet" in again
    demo.post(f"{page}/steps/point", {"step": "check", "point": step.points[0], "ticked": "1"})
    demo.post(f"{page}/steps/point", {"step": "check", "point": step.points[1], "ticked": "0"})
    assert "is not finished yet" in demo.post(f"{page}/steps/tick", tick, follow_redirects=True).text
    demo.post(f"{page}/steps/point", {"step": "check", "point": step.points[1], "ticked": "1"})
    demo.post(f"{page}/steps/tick", tick)
    demo.post(f"{page}/steps/tick", {"step": "pack", "done": "1", "early": "1"})
    assert seven(demo)[0].stand == READY
    history = demo.get(f"/history?of=piece&id={piece.id}").text
    assert f"{CHECKS[step.points[1]]}: ticked" in history and f"{CHECKS[step.points[1]]}: not yet" in history
    late = demo.post(f"{page}/steps/point", {"step": "check", "point": step.points[0], "ticked": "0"})
    assert late.status_code == 422 and "take the step back first: it is done" in late.text
    odd = demo.post(f"{page}/steps/point", {"step": "check", "point": "polished", "ticked": "1"})
    assert odd.status_code == 422 and "a point of this step" in odd.text


def design_of(visitor, piece):
    with opened(visitor) as session:
        return to_design(dict(pieces.document_of(session, session.get_one(Piece, piece.id))))


@pytest.mark.parametrize(("ago_h", "asks"), [(30, False), (40, True)])
def test_a_coat_after_its_window_asks_for_a_scuff_and_notes_it(demo, ago_h, asks):
    piece = seven(demo)[0]
    page = f"/pieces/{piece.id}"
    demo.post(f"{page}/coats", {"count": "2"})
    with opened(demo) as session:
        row = session.get_one(Piece, piece.id)
        keys = [step.key for step in routes.of(session, row)]
        for key in keys[: keys.index("coat:clear1") + 1]:
            pieces.end_step(session, row, key)
        for kept in routes.touched(session, row).values():
            kept.done_at = now() - timedelta(hours=ago_h)
    after = keys[keys.index("coat:clear1") + 1]
    shown = demo.get(page).text
    assert ("closed" in shown and "scuff it dull" in shown) is asks
    demo.post(f"{page}/steps/tick", {"step": after, "done": "1"})
    ended = {one.step: one for one in rows(demo, PieceStep) if one.piece_id == piece.id}
    assert (after in ended) is not asks
    if asks:
        assert "it is scuffed" in demo.get(f"{page}?ask={after}").text
        demo.post(f"{page}/steps/tick", {"step": after, "done": "1", "scuffed": "1"})
        ended = {one.step: one for one in rows(demo, PieceStep) if one.piece_id == piece.id}
        assert ended[after].note == "scuffed, its window was over"


def test_each_piece_has_its_own_coats_of_clear(demo):
    one, other = seven(demo)[:2]
    demo.post(f"/pieces/{one.id}/coats", {"count": "4"})
    with opened(demo) as session:
        waits = [
            step.wait_h
            for step in routes.of(session, session.get_one(Piece, one.id))
            if step.key.startswith("coat:clear")
        ]
        others = routes.of(session, session.get_one(Piece, other.id))
    assert waits == [8.0, 8.0, 8.0, 24.0]  # three recoats and one cure
    assert sum(step.key.startswith("coat:clear") for step in others) == 1
    answer = demo.post(f"/pieces/{one.id}/coats", {"count": "1.5"})
    assert answer.status_code == 422 and "a whole number" in answer.text


def test_an_order_keeps_the_version_it_froze_until_it_takes_another(demo):
    order = next(row for row in rows(demo, Order) if row.stand == "enquiry")
    line = next(row for row in rows(demo, OrderLine) if row.order_id == order.id)
    page, scheme = f"/orders/{order.id}", line.scheme_id
    assert line.scheme_version == 1
    with opened(demo) as session:
        row = session.get_one(Document, scheme)
        content = documents.content(session, row)
        content["layers"][2]["paint"]["colour"] = "#123456"
        documents.save(session, row, content, row.current)
    text = demo.get(page).text
    assert "version 2 is out since" in text and f"/paints/{scheme}/version/1" in text
    demo.post(f"{page}/line/{line.id}/design")
    with opened(demo) as session:
        design = session.get_one(Document, session.get_one(OrderLine, line.id).design_id)
        laid = documents.content(session, design)
    assert laid["scheme_version"] == 1 and laid["layers"][2]["paint"]["colour"] != "#123456"
    demo.post(f"{page}/line/{line.id}/version")
    assert next(row for row in rows(demo, OrderLine) if row.id == line.id).scheme_version == 2
    assert "is out since" not in demo.get(page).text
    old = demo.get(f"/paints/{scheme}/version/1").text
    assert "version 1" in old and "orders that froze it keep it so" in old
    assert "This is the version in use" in demo.get(f"/paints/{scheme}/version/2").text
    assert demo.get(f"/paints/{scheme}/version/99").status_code == 404
    assert f'href="/paints/{scheme}/version/1"' in demo.get(f"/paints/{scheme}/revisions").text


def test_an_order_without_a_scheme_takes_no_version(demo):
    with opened(demo) as session:
        session.get_one(OrderLine, 24).scheme_id = None
    answer = demo.post("/orders/24/line/24/version")
    assert answer.status_code == 422 and "choose a scheme for the line first" in answer.text


def test_schemes_are_told_apart_found_by_what_they_are_for_and_say_where_they_are_used(demo):
    page = f"/paints/{shop.ZANDER_CLAY}"
    assert "zander, autumn" in demo.get("/paints?q=autumn").text
    assert "Zander clay" not in demo.get("/paints?q=spring").text
    text = demo.get(page).text
    assert "Ferry runner 110" in text and "Easily read for" not in text
    demo.post(f"{page}/copy")
    with opened(demo) as session:
        copied = session.exec(documents.matching("scheme", "Zander clay copy")).one()
    assert f"there {copied.code}" in demo.get(page).text
    edit = [
        {"do": "set", "path": "replaced_by", "text": copied.code},
        {"do": "set", "path": "fish", "text": "burbot"},
    ]
    held = state(demo, page)
    sent = {"document": held["document"], "base": held["base"], "edits": edit, "save": True}
    demo.send(f"{page}/live", sent)
    assert f"replaced by {copied.code}" in demo.get("/paints?q=burbot").text
    assert "which it replaced" in demo.get(f"/paints/{copied.id}").text


def test_a_repaint_says_what_it_weighed_before_and_after(demo):
    demo.post("/pieces/start", {"design": str(shop.FERRY_RUNNER), "repaint": "kept"})
    piece = rows(demo, Piece)[-1]
    page = f"/pieces/{piece.id}"
    text = demo.get(page).text
    assert "A repaint, its old paint kept." in text and "Take it in" in text and "can hold lead" in text
    assert "Weigh: scale says" in " ".join(demo.get(f"{page}/card").text.split())  # as nobody knows it yet
    for stage, mass in (("came", "12.4 g"), ("bared", "12.1 g"), ("cleared", "12.9 g")):
        sent = {"target": f"stage:{stage}", "mass": mass, "instrument": "1"}
        assert demo.post(f"{page}/weigh", sent).status_code == 302
    text = demo.get(page).text
    assert "It came with 12.40 g. 0.30 g of it came off. It is 0.50 g heavier than it came" in text
    card = demo.get(f"/paints/piece/{piece.id}/card").text
    assert "Back fade" in card and "White primer" not in card and "Seal, thinned" not in card
    assert "1 piece, 6 layers" in card_of(demo, [piece])  # over old paint no seal and no ground go on
    odd = demo.post("/pieces/start", {"design": str(shop.FERRY_RUNNER), "repaint": "burnt"})
    assert odd.status_code == 422 and "kept" in odd.text
    other = demo.post("/pieces/start", {"design": str(shop.FOAM_PILOT), "repaint": "kept"})
    assert other.status_code == 422 and "only that is painted anew by a scheme" in other.text


def test_schemes_and_steps_lie_beside_and_over_each_other(demo):
    text = demo.get(f"/paints/beside?show=s{shop.ZANDER_CLAY}-3&show=s{shop.ZANDER_CLAY}").text
    assert "data-wipe" in text and "3 of 9 layers" in text
    for token, on in ((f"s{shop.ZANDER_CLAY}-3", shop.SPLIT_EEL), (f"b{shop.MUDLARK}", "")):
        drawn = demo.get(f"/paints/beside/{token}.svg?on={on}")
        assert drawn.mimetype == "image/svg+xml" and drawn.text.startswith("<svg")
    bodies = demo.get(f"/paints/beside?show=b{shop.MUDLARK}&show=s{shop.ZANDER_CLAY}").text
    assert "data-wipe" not in bodies and bodies.count("from four sides") == 2
    for token in ("s99999", f"b{shop.ZANDER_CLAY}", "x1", "s1-x"):
        assert demo.get(f"/paints/beside/{token}.svg").status_code == 404
    assert "Choose two or more" in demo.get("/paints/beside?show=s99999").text


def test_a_scheme_out_and_in_again_lies_the_same(demo, tmp_path):
    """Laid on a body, sent out as a file, brought in as another and laid again: every figure is the same."""
    body = f"/paints/on/{shop.SPLIT_EEL}"

    def laid(code):
        held = state(demo, body)
        edits = [{"do": "scheme", "code": code}]
        sent = {"document": held["document"], "base": held["base"], "edits": edits, "save": True}
        view = demo.send(
            f"{body.replace('/paints/on', '/designs')}/live", {**sent, "bench": "paints"}
        ).get_json()
        return [(row["name"], row["mass"]) for row in view["view"]["layers"]]

    with opened(demo) as session:
        code = session.get_one(Document, shop.ZANDER_CLAY).code
    before = laid(code)
    file = demo.get(f"/paints/{shop.ZANDER_CLAY}/scheme.json").data
    demo.post("/paints/bring-in", {"file": (io.BytesIO(file), "zander.json")})
    again = rows(demo, Document)[-1]
    assert again.kind == "scheme" and again.code != code and len(before) > 5
    assert laid(again.code) == before
    back = demo.get(f"/paints/{again.id}/scheme.json")
    assert back.get_json()["layers"] == json.loads(file)["layers"] and back.get_json()["fish"] == "zander"
