"""Photos on any page: several at once, turned upright, without what the camera knows, kept once."""

import io
import re

import numpy as np
import pytest
from PIL import Image
from werkzeug.datastructures import FileStorage
from werkzeug.test import encode_multipart

from lamsik.store import photos
from lamsik.store.tables import Photo
from tests import demo_rows
from tests.web.pouring import rows
from tests.web.test_doing import opened

PAGES = {
    "custody": "/orders/custody/1",
    "order": "/orders/1",
    "piece": f"/pieces/{demo_rows.PIECE_FERRY_RUNNER_90}",
}


def picture(seed=1, size=(600, 400), turned=False):
    """A JPEG as a tablet's camera saves it, with a place in it."""
    cells = np.random.default_rng(seed).integers(0, 255, (*size[::-1], 3), dtype=np.uint8)
    shot, told = Image.fromarray(cells), Image.Exif()
    told[0x010F] = "Camera of the tablet"
    told.get_ifd(0x8825)[1] = "N"
    if turned:
        told[0x0112] = 6
    data = io.BytesIO()
    shot.save(data, "JPEG", exif=told, quality=90)
    return data.getvalue()


def brought(visitor, of, of_id, *files):
    sent = {"photo": [(io.BytesIO(data), name) for name, data in files], "back": PAGES[of]}
    return visitor.post(f"/photos/{of}/{of_id}", data=sent, follow_redirects=True).text


@pytest.mark.parametrize("of", PAGES)
def test_several_are_kept_at_once_and_one_that_is_none_is_named(demo, of):
    of_id = int(PAGES[of].rsplit("/", 1)[1])
    text = brought(
        demo, of, of_id, ("a.jpg", picture(1)), ("b.jpg", picture(2)), ("words.jpg", b"no picture")
    )
    assert "2 photos kept." in text and "words.jpg" in text and "no picture that can be read" in text
    shown = demo.get(PAGES[of]).text
    keys = re.findall(r'src="/photos/(\d+)/small\.jpg"', shown)
    assert len(keys) == 2 and "Photo 2," in shown
    small = Image.open(io.BytesIO(demo.get(f"/photos/{keys[0]}/small.jpg").data))
    assert max(small.size) == 360
    brought(demo, of, of_id, ("again.jpg", picture(1)))
    assert len(re.findall(r"/small\.jpg", demo.get(PAGES[of]).text)) == 2  # the same is kept once


def test_what_the_camera_knows_leaves_and_it_stands_upright(demo):
    sent = picture(3, (2600, 1000), turned=True)
    whole(demo, "/photos/custody/1", sent, back=PAGES["custody"])
    row = rows(demo, Photo)[-1]
    data = demo.get(f"/photos/{row.id}.jpg").data
    kept = Image.open(io.BytesIO(data))
    assert kept.size == (row.width_px, row.height_px) and kept.height == 2000 > kept.width
    assert not kept.getexif() and b"Camera of the tablet" not in data
    with opened(demo) as session:
        assert photos.stored_bytes(session) == len(data)


def test_one_is_taken_off_and_brought_back_and_leads_back_to_this_shop_only(demo):
    brought(demo, "order", 1, ("a.jpg", picture(4)))
    row = rows(demo, Photo)[-1]
    text = demo.post(f"/photos/{row.id}/delete", {"back": "/orders/1"}, follow_redirects=True).text
    assert "The photo is taken off." in text and f"/photos/{row.id}/small.jpg" not in text
    undo = re.search(rf'action="(/photos/{row.id}/bring_back[^"]*)"', text)[1]
    assert demo.post(undo.replace("&amp;", "&")).headers["Location"].endswith("/orders/1")
    assert f"/photos/{row.id}/small.jpg" in demo.get("/orders/1").text
    for back in ("//elsewhere.example", "https://elsewhere.example"):
        answer = demo.post(f"/photos/{row.id}/delete", {"back": back})
        assert answer.headers["Location"] == "/"


def test_too_many_none_and_of_nothing_are_told(demo):
    assert "no photo was chosen" in brought(demo, "order", 1)
    many = [(f"{n}.jpg", b"x") for n in range(13)]
    assert "at most 12" in brought(demo, "order", 1, *many)
    assert demo.post("/photos/order/999", data={}).status_code == 404
    with opened(demo) as session:
        session.add_all(
            Photo(of="order", of_id=1, digest=str(n), width_px=1, height_px=1, bytes=1) for n in range(40)
        )
        session.commit()
    refused = brought(demo, "order", 1, ("a.jpg", picture(5)))
    assert "at most 40" in refused and "of one thing" in refused


def test_a_photo_as_large_as_a_tablet_takes_them_gets_in_at_every_door(demo):
    large = picture(6, (2400, 1800))
    assert len(large) > 3_000_000
    kept = whole(demo, "/photos/piece/1", large, back=PAGES["piece"])
    assert kept.status_code == 302 and "1 photo kept." in demo.get(PAGES["piece"]).text
    marks = {"marks": '{"card": [], "points": []}', "white": "95", "grey": "50", "black": "20"}
    answer = whole(demo, f"/paints/photo/match/{demo_rows.FADED_PERCH}", large, **marks)
    assert answer.status_code == 422 and "mark all three" in answer.text


def whole(visitor, door, data, **more):
    """Sent as one body: the visitor's own way leaves a file open where one is large."""
    file = FileStorage(io.BytesIO(data), "bait.jpg")
    sent = {"csrf_token": visitor.token("/mixes/clocks"), "photo": file, **more}
    bound, body = encode_multipart(sent)
    kind = f"multipart/form-data; boundary={bound}"
    return visitor.http.post(door, data=body, content_type=kind, environ_base=visitor.environment)
