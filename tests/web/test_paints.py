"""Schemes over the web: edited live, kept as revisions, refused beside their field, out and in as a file."""

import base64
import io
import json
import re
from xml.etree import ElementTree

import numpy as np
import pytest
from PIL import Image

from lamsik.core.paints.layers import begun
from lamsik.documents.body.document import to_design
from lamsik.documents.schemes.document import of_layers
from lamsik.store import documents, pieces
from lamsik.store.tables import Document, Piece
from tests import demo_rows as shop
from tests.lean import state
from tests.web.pouring import rows
from tests.web.test_doing import opened

SCHEME = shop.ZANDER_CLAY
EMPTY = of_layers("x", [])
ROW = of_layers("x", [begun("bars", "a")])["layers"][0]


def live(shop, page, *edits, **more):
    held = state(shop, page)
    sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True, **more}
    return shop.send(f"{page}/live", sent)


@pytest.fixture
def fresh(empty):
    """The page of a new scheme."""
    return empty.post("/paints/new").headers["Location"]


def test_a_scheme_is_made_changed_and_kept_as_revisions(empty, fresh):
    edits = (
        {"do": "set", "path": "name", "text": "Mud"},
        {"do": "add", "kind": "bars"},
        {"do": "set", "path": "layers.bars1.place.count", "text": "9"},
        {"do": "set", "path": "layers.base1.film_um", "text": "1 mil"},
        {"do": "set", "path": "layers.clear1.wait_h", "text": "2 d"},
    )
    answer = live(empty, fresh, *edits).get_json()
    assert answer["errors"] == [] and answer["base"] == 2
    kept = state(empty, fresh)
    fields, names = kept["view"]["fields"], [row["key"] for row in kept["view"]["layers"]]
    assert (fields["name"], fields["layers.bars1.place.count"]) == ("Mud", "9")
    assert (fields["layers.base1.film_um"], fields["layers.clear1.wait_h"]) == ("1 mil", "2 d")
    assert names == ["seal1", "primer1", "base1", "fade1", "bars1", "eyes1", "clear1"]
    assert kept["document"]["typed"]["layers.base1.film_um"] == "1 mil"
    assert kept["document"]["layers"][-1]["window_h"] == 48.0  # never shorter than the least wait
    live(empty, fresh, {"do": "up", "key": "bars1"}, {"do": "remove", "group": "layers", "key": "eyes1"})
    assert [row["key"] for row in state(empty, fresh)["view"]["layers"]][3:] == ["bars1", "fade1", "clear1"]
    assert empty.send(f"{fresh}/undo", {"base": 3}).get_json()["base"] == 2
    assert [row["key"] for row in state(empty, fresh)["view"]["layers"]] == names


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("layers.base1.film_um", "thick", "type a film thickness"),
        ("name", " ", "give the scheme a name"),
    ],
)
def test_a_bad_figure_is_told_beside_its_field_and_changes_nothing(empty, fresh, path, text, says):
    answer = live(empty, fresh, {"do": "set", "path": path, "text": text}).get_json()
    assert answer["errors"][0]["field"] == path and says in answer["errors"][0]["says"].lower()
    assert state(empty, fresh)["base"] == 1


def test_an_unknown_kind_is_refused(empty, fresh):
    answer = live(empty, fresh, {"do": "add", "kind": "glitterbomb"}).get_json()
    assert "one of seal, primer" in answer["errors"][0]["says"]


@pytest.mark.parametrize(
    "document",
    [
        None,
        7,
        {"layers": []},
        {**EMPTY, "layers": "all"},
        {**EMPTY, "layers": [{"key": "a"}]},
        {**EMPTY, "more": 1},
        {**EMPTY, "typed": []},
        {**EMPTY, "layers": [{**ROW, "place": {**ROW["place"], "count": 2.5}}]},
        {**EMPTY, "layers": 2 * [ROW]},
    ],
)
def test_what_is_no_scheme_is_refused_in_words(empty, fresh, document):
    assert live(empty, fresh, document=document).status_code == 422


def test_the_last_of_two_tabs_is_told(demo):
    page = f"/paints/{SCHEME}"
    rename = {"do": "set", "path": "name", "text": "Other clay"}
    assert live(demo, page, rename).status_code == 200
    assert live(demo, page, {**rename, "text": "Third"}, base=1).status_code == 409
    assert state(demo, page)["document"]["name"] == "Other clay"


def test_a_scheme_goes_out_and_comes_in_as_it_was(demo):
    page = f"/paints/{SCHEME}"
    data, was = demo.get(f"{page}/scheme.json").data, state(demo, page)
    copied = demo.post(f"{page}/copy").headers["Location"]
    assert state(demo, copied)["document"]["name"] == f"{was['document']['name']} copy"
    made = demo.post("/paints/bring-in", {"file": (io.BytesIO(data), "clay.json")}).headers["Location"]
    now = state(demo, made)
    assert (
        now["document"]["layers"] == was["document"]["layers"]
        and now["document"]["name"] == was["document"]["name"]
    )
    for spoiled in (b"{}", b"\x89PNG", json.dumps({**json.loads(data), "layers": [{"key": 1}]}).encode()):
        told = demo.post("/paints/bring-in", {"file": (io.BytesIO(spoiled), "x.json")}, follow_redirects=True)
        assert "It cannot be brought in." in told.text


def dragged(shop, page, *edits, **more):
    return live(shop, page, *edits, save=False, mode="drag", **more).get_json()["view"]


def test_the_chosen_layer_shows_its_figures_and_handles(demo):
    page = f"/paints/{SCHEME}"
    opened = state(demo, page)["view"]
    assert opened["facing"] == "bars1" and opened["chosen"][0]["key"] == "bars1"
    labels = [row["label"] for row in opened["chosen"][0]["place"]]
    assert labels[:5] == ["Begins", "Ends", "Upper edge", "Lower edge", "How many"]
    assert "Width, of their pitch" in labels
    drawn = json.dumps(opened["picture"])
    assert "layers.bars1.place.begins.at_percent" in drawn and "layers.bars1.place.bottom.at_percent" in drawn
    eyes = live(demo, page, save=False, facing="eyes1").get_json()["view"]
    assert eyes["facing"] == "eyes1" and "layers.eyes1.place.size_percent" in json.dumps(eyes["picture"])
    assert [row["label"] for row in eyes["chosen"][0]["place"]][:2] == [
        "Along the body",
        "Round from the back",
    ]


def test_a_layer_moved_by_its_handle_is_seen_and_its_surface_follows(demo):
    page = f"/paints/{SCHEME}"
    start = dragged(demo, page, facing="fade1")
    deeper = {"do": "set", "path": "layers.fade1.place.bottom.at_percent", "value": 90.0}
    moved = dragged(demo, page, deeper, facing="fade1")
    assert moved["picture"] != start["picture"]
    shares = [
        next(float(row["takes"].split()[0]) for row in view["layers"] if row["key"] == "fade1")
        for view in (start, moved)
    ]
    assert shares[1] > shares[0] + 20
    sketches = re.findall(r"base64,([\w+/=]+)", json.dumps(moved["picture"]))
    assert len(sketches) == 3 and sum(map(len, sketches)) < 9_000


def test_layers_over_the_chosen_one_can_be_left_off(demo):
    page = f"/paints/{SCHEME}"
    whole, part = (
        live(demo, page, save=False, facing="primer1", looks=looks).get_json()["view"]
        for looks in ("all", "upto")
    )
    assert (whole["looks"], part["looks"]) == ("all", "upto") and whole["picture"] != part["picture"]


def test_a_locked_layer_is_told_and_can_be_unlocked(empty, fresh):
    live(empty, fresh, {"do": "flag", "path": "layers.base1.locked", "on": True})
    refused = live(empty, fresh, {"do": "set", "path": "layers.base1.film_um", "text": "9"}).get_json()
    assert "untick Locked" in refused["errors"][0]["says"]
    row = next(row for row in state(empty, fresh)["view"]["layers"] if row["key"] == "base1")
    assert row["locked"] and row["stays"]
    asked = refused["errors"][0]
    assert asked["ask"] == f"Change {row['name']} all the same" and asked["edit"]["though"] == row["name"]
    through = live(empty, fresh, asked["edit"]).get_json()
    assert through["errors"] == [] and through["document"]["layers"][2]["film_um"] == 9.0
    wrong = live(
        empty, fresh, {"do": "set", "path": "layers.base1.film_um", "text": "thick", "though": row["name"]}
    )
    assert "ask" not in wrong.get_json()["errors"][0]


def test_a_scheme_is_matched_and_the_spray_card_shows_what_changed(demo):
    piece = rows(demo, Piece)[0]
    with opened(demo) as session:
        design = to_design(pieces.document_of(session, piece))
        page = f"/paints/{documents.coded(session, 'scheme', design.scheme).id}"
    card = f"/paints/piece/{piece.id}/card"
    text = demo.get(card).text
    assert "Otherwise than before" not in text
    held = state(demo, page)["view"]
    assert held["job"] == [] and held["in_job"] is False and "Name the sample" in held["job_says"]
    matched = live(demo, page, {"do": "set", "path": "match_to", "text": "her old bait"}).get_json()["view"]
    assert matched["in_job"] and all(row["locked"] and "locked" in row["says"] for row in matched["job"])
    assert "Matched to her old bait: 0 of" in matched["job_says"]
    assert len(matched["job"]) == len(matched["layers"])
    fade = next(row for row in matched["job"] if row["key"].startswith("fade"))
    free = live(
        demo,
        page,
        {"do": "flag", "path": fade["lock"], "on": False},
        {"do": "set", "path": f"layers.{fade['key']}.passes", "text": "4"},
    ).get_json()
    assert free["errors"] == [] and "1 of" in free["view"]["job_says"]
    says = next(row["says"] for row in free["view"]["job"] if row["key"] == fade["key"])
    assert "→ 4 ×" in says
    assert "Otherwise than before" not in demo.get(card).text  # this piece has the version it was begun with
    with opened(demo) as session:
        row = session.get_one(Document, piece.design_id)
        content = documents.content(session, row)
        for layer in content["layers"]:
            layer["passes"] = 4 if layer["key"] == fade["key"] else layer["passes"]
        saved = documents.save(session, row, content, row.current)
        kept = session.get_one(Piece, piece.id)
        kept.revision_id = saved.id
        session.add(kept)
        session.commit()
    text = " ".join(demo.get(card).text.split())
    assert "Otherwise than before, to match her old bait" in text and says in text
    assert demo.get(f"{card}.pdf").data[:4] == b"%PDF"


@pytest.mark.parametrize("page", [f"/paints/{SCHEME}", f"/paints/on/{shop.FERRY_RUNNER}"])
def test_a_scheme_leaves_as_pictures(demo, page):
    picture = demo.get(f"{page}/picture.png")
    opened = Image.open(io.BytesIO(picture.data))
    assert opened.info["dpi"] == pytest.approx((300, 300), abs=0.1) and opened.mode == "RGBA"
    alpha = np.asarray(opened)[..., 3]
    long_mm = np.ptp(np.nonzero(alpha.any(axis=0))[0]) / 300 * 25.4
    assert long_mm == pytest.approx(90, abs=0.5)  # at true size
    assert "attachment" in picture.headers["Content-Disposition"]
    outlines = demo.get(f"{page}/layers.svg")
    root = ElementTree.fromstring(outlines.data)
    names = [node.text for node in root.iter("{http://www.w3.org/2000/svg}title")]
    assert {"left", "White primer", "Clear, slow epoxy"} <= set(names) and root.get("width").endswith("mm")


@pytest.mark.parametrize("page", [f"/paints/{SCHEME}", f"/paints/on/{shop.SPLIT_EEL}"])
def test_a_bait_is_sent_to_be_turned(demo, page):
    sent = demo.get(f"{page}/hand.json").get_json()
    points = np.frombuffer(base64.b64decode(sent["points"]), "<f4").reshape(-1, 3)
    faces = np.frombuffer(base64.b64decode(sent["faces"]), "<u2").reshape(-1, 3)
    assert faces.max() < len(points) and np.ptp(points[:, 0]) == pytest.approx(sent["length_mm"], rel=0.01)
    assert sent["colour"].startswith("data:image/webp;base64,") and sent["glossy"] is True
    assert demo.get("/paints/9999/hand.json").status_code == 404


def test_a_bait_is_turned_as_far_as_it_is_painted(demo):
    keys = [row["key"] for row in demo.get(f"/paints/{SCHEME}/scheme.json").get_json()["layers"]]
    far = [demo.get(f"/paints/{SCHEME}/hand.json?upto={key}").get_json() for key in (keys[0], keys[-1])]
    whole = demo.get(f"/paints/{SCHEME}/hand.json").get_json()
    assert far[0]["colour"] != whole["colour"] == far[1]["colour"]


@pytest.mark.parametrize(("times", "says"), [(1, "40"), (4, "at most")])
def test_a_file_of_too_many_layers_is_told_in_its_place(demo, times, says):
    many = of_layers("Many", [begun("bars", f"bars{n}") for n in range(60)])
    with io.BytesIO(json.dumps({**many, "layers": many["layers"] * times}).encode()) as file:
        answer = demo.post("/paints/bring-in", data={"file": (file, "many.json")}, follow_redirects=True)
    assert answer.status_code == 200 and says in answer.text


def test_a_file_beyond_all_limits_is_told_and_is_no_error(demo):
    token = demo.token("/mixes/clocks")
    field = 'Content-Disposition: form-data; name="'
    body = f'--x\r\n{field}csrf_token"\r\n\r\n{token}\r\n--x\r\n{field}file"; filename="a.json"\r\n\r\n'
    with io.BytesIO(body.encode() + b" " * 12_000_000 + b"\r\n--x--\r\n") as sent:
        answer = demo.http.post(
            "/paints/bring-in",
            input_stream=sent,
            content_length=len(sent.getvalue()),
            content_type="multipart/form-data; boundary=x",
            environ_base=demo.environment,
        )
    assert answer.status_code == 413 and "2 MB" in answer.text
