"""Paint mixed for a set: off the pots by drops or by the gram, its lot, and what it taught."""

import re

import pytest

from lamsik.store import paint_mixes, shelf
from lamsik.store.tables import Batch, Document
from tests import demo_rows
from tests.lean import state
from tests.web.pouring import rows
from tests.web.test_doing import opened

BODY = demo_rows.FERRY_RUNNER
CREAM = "W-002"


def lay_off_the_shelf(visitor, body=BODY):
    held = state(visitor, f"/paints/on/{body}")
    edit = {"do": "scheme", "code": "S-017"}
    sent = {"document": held["document"], "base": held["base"], "edits": [edit], "save": True}
    answer = visitor.send(f"/designs/{body}/live", {**sent, "bench": "paints"}).get_json()
    assert answer["errors"] == []


def begun(visitor, code=CREAM, pieces="5"):
    sent = {"code": code, "pieces": pieces, "loss": "10 %"}
    return visitor.post(f"/paints/on/{BODY}/mix", sent).headers["Location"]


def part(page_text, name):
    return re.search(rf'name="part"\s+value="({name}[^"]*)"', page_text)[1]


def left_ml(visitor, name):
    with opened(visitor) as session:
        return next(paint.left_ml for _, paint in shelf.paints(session) if paint.name == name)


def batch(visitor):
    return rows(visitor, Batch)[-1]


def said(visitor, page):
    return " ".join(visitor.get(page).text.split())


def all_in(visitor):
    """A mix of cream for five whose parts are in, by drops."""
    lay_off_the_shelf(visitor)
    page = begun(visitor)
    visitor.post(f"{page.replace('/weigh', '')}/read")
    for line in batch(visitor).plan["rows"]:
        visitor.post(f"{page}/weigh", {"part": line["part"], "drops": str(line["drops"])})
    return page


def test_a_mix_for_a_set_is_dropped_out_of_the_pots_and_is_a_lot(demo):
    lay_off_the_shelf(demo)
    assert "Mix it: Belly cream" in demo.get(f"/paints/on/{BODY}/amounts?pieces=5").text
    page = begun(demo)
    text = said(demo, page)
    assert "Belly cream (W-002) for 5 pieces of" in text and "drops" in text
    assert "Read what can hurt first" in text  # solvent and spray
    demo.post(f"{page}/read")
    row = batch(demo)
    white, yellow = row.plan["rows"]
    assert white["drops"] == 9 * yellow["drops"] and white["code"] != yellow["code"]
    before = left_ml(demo, "Chalk white")
    kept = demo.post(
        f"{page}/weigh", {"part": white["part"], "drops": str(white["drops"])}, follow_redirects=True
    )
    assert "Take back" in kept.text and "CH2242" in kept.text  # out of this pot
    assert left_ml(demo, "Chalk white") == pytest.approx(before - white["drops"] * 0.05, abs=1e-3)
    demo.post(f"{page}/take-back", {"part": white["part"]})
    assert left_ml(demo, "Chalk white") == pytest.approx(before, abs=1e-3)
    for line in (white, yellow):
        demo.post(f"{page}/weigh", {"part": line["part"], "grams": f"{line['grams']:.3f} g"})
    lot = f"{CREAM}/{row.id}"
    assert f"it is lot {lot}" in said(demo, page)
    demo.post(f"{page}/mixed")
    assert f"Lot {lot} is mixed" in said(demo, page)
    assert said(demo, "/mixes/clocks").count("Belly cream") == 0  # no pot life runs for a paint


def test_drops_that_are_none_and_an_empty_pot_are_refused_in_place(demo):
    lay_off_the_shelf(demo)
    page = begun(demo, pieces="900")
    demo.post(f"{page}/read")
    white = batch(demo).plan["rows"][0]
    halves = demo.post(f"{page}/weigh", {"part": white["part"], "drops": "2.5"})
    assert halves.status_code == 422 and "whole drops" in halves.text
    none = demo.post(f"{page}/weigh", {"part": white["part"], "grams": "", "drops": ""})
    assert none.status_code == 422 and batch(demo).weighed == []
    much = demo.post(f"{page}/weigh", {"part": white["part"], "drops": str(white["drops"])})
    assert much.status_code == 422 and "no pot of it holds so much" in much.text
    assert batch(demo).weighed == []
    early = demo.post(f"{page}/taught", {"lost": "1 g"})
    assert early.status_code == 422 and "press Sprayed first" in early.text
    other = demo.post(f"/mixes/batch/{demo_rows.BATCH_SHOT_1_OF_STUBBY_FOUR_AT_ONCE}/taught", {"lost": "1 g"})
    assert other.status_code == 422 and "a mix of paint" in other.text


def test_what_is_weighed_after_teaches_loss_and_what_stays_and_the_next_amounts_follow(demo):
    with opened(demo) as session:  # nothing was learned yet
        last = rows(demo, Batch)[-1]
        kept = session.get_one(Batch, last.id)
        kept.plan = {**kept.plan, "lost_g": None, "gained_g": None}
        session.add(kept)
        session.commit()
    page = all_in(demo)
    demo.post(f"{page}/mixed")
    demo.post(f"{page}/poured")
    assert "Weigh what comes back" in said(demo, page)
    before = said(demo, f"/paints/on/{BODY}/amounts?pieces=5&loss=10 %")
    assert "first guess" in before
    grams = sum(line["grams"] for line in batch(demo).weighed)
    back, dry = 0.2 * grams, batch(demo).plan["dry_share"]
    demo.post(f"{page}/taught", {"lost": f"{back:.4f} g"})
    text = said(demo, page)
    assert "25 % stayed in cup and brush. What the pieces gain" in text and "Stays on the body" not in text
    gained = 0.5 * 0.8 * grams * dry
    demo.post(f"{page}/taught", {"lost": f"{back:.4f} g", "gained": f"{gained:.4f} g"})
    text = said(demo, page)
    assert "50 % of what went out stays on the pieces" in text
    assert "Stays on the body, sprayed: 40 %, from 1 mix" in text  # a third of the way from 35 to 50
    assert "In cup and brush: 15 %, from 1 mix" in text
    after = said(demo, f"/paints/on/{BODY}/amounts?pieces=5")
    assert "first guess" not in after and 'value="15 %"' in after and "sprayed: 40 %" in after
    with opened(demo) as session:
        assert paint_mixes.stays_shares(session)["sprayed"] == pytest.approx(0.4, abs=2e-3)
        assert paint_mixes.stays_shares(session)["brushed"] == 0.9
    too_much = demo.post(f"{page}/taught", {"lost": f"{back:.4f} g", "gained": f"{grams:.4f} g"})
    assert too_much.status_code == 422 and "weigh the pieces before and after" in too_much.text
    assert batch(demo).plan["gained_g"] == pytest.approx(gained, abs=1e-3)


def test_a_colour_is_mixed_for_a_look_as_the_recipe_is_then(demo):
    page = f"/paints/match/{demo_rows.WEED_BACK}"
    begun_at = demo.post(f"{page}/mix", {"ml": "2 ml"}).headers["Location"]
    row = batch(demo)
    assert [line["drops"] for line in row.plan["rows"]] == [16, 24] and row.purpose == "Weed back, to look at"
    with opened(demo) as session:
        match = session.get_one(Document, demo_rows.WEED_BACK)
        assert paint_mixes.lot_of(session, session.get_one(Batch, row.id)).startswith(f"{match.code}/")
    held = state(demo, page)
    edit = {"do": "set", "path": "parts.r1.drops", "text": "7"}
    demo.send(
        f"{page}/live", {"document": held["document"], "base": held["base"], "edits": [edit], "save": True}
    )
    assert "16 : 24 drops" in said(demo, begun_at)
    for ml, says in (("", "volume"), ("0.001 ml", "0.1 to 2000 ml"), ("much", "much")):
        answer = demo.post(f"{page}/mix", {"ml": ml}, follow_redirects=True).text
        assert "Nothing is mixed." in answer and says in answer.lower(), ml
    without = demo.post(f"/paints/match/{demo_rows.FADED_PERCH}/mix", {"ml": "3 ml"}, follow_redirects=True)
    assert "take a recipe of paints on the shelf first" in without.text
    assert (
        "Nothing is mixed."
        in demo.post(f"/paints/on/{BODY}/mix", {"code": "C-999", "pieces": "5"}, follow_redirects=True).text
    )


def test_the_last_mixes_teach_and_older_ones_no_more(demo, monkeypatch):
    with opened(demo) as session:
        last = session.get_one(Batch, rows(demo, Batch)[-1].id)
        before = paint_mixes.loss(session)
        grams = sum(line["grams"] for line in last.weighed)
        for lost in (0.05, 0.4):
            plan = {**last.plan, "left_g": 0.0, "lost_g": lost * grams, "gained_g": None}
            again = Batch(**{**last.model_dump(exclude={"id"}), "plan": plan})
            session.add(again)
            session.flush()
        monkeypatch.setattr(paint_mixes, "MOST_TAUGHT", 1)
        assert paint_mixes.loss(session).n == 1 and paint_mixes.loss(session).value > before.value
