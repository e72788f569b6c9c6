"""Files put into the wrong box: each box says what it was given, in words."""

import io
from functools import partial
from pathlib import Path

import pytest
from PIL import Image

from lamsik.core.errors import Refused
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.moulds import document as mould_document
from lamsik.documents.registry import KINDS
from lamsik.formats import (
    asked,
    body_file,
    document_file,
    dxf,
    outlines,
    stl,
    svg_outlines,
    upright,
    weighed_csv,
)
from lamsik.formats.sniff import kind_of
from lamsik.web import security
from lamsik.words import refusals
from lamsik.words.given import brief
from tests.documents.test_body import full

FULL = {
    "format": "lamsik-mould",
    "version": 1,
    "name": "M",
    "master": {"kind": "box"},
    "cavities": [{"key": "c1", "x_mm": 1, "y_mm": 1}],
}


def picture(kind: str) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (3, 2)).save(out, kind)
    return out.getvalue()


def triangles(count: int) -> bytes:
    return b"bracket".ljust(80) + count.to_bytes(4, "little") + bytes(50 * count)


FILES = {
    "an STL mesh": triangles(3),
    "a picture": picture("PNG"),
    "a JSON file": b'\xef\xbb\xbf {"format": "something"}',
    "an SVG drawing": b'<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg"/>',
    "a DXF drawing": b"  0\nSECTION\n  2\nHEADER\n",
    "an empty file": b" \n",
    "a file of another kind": bytes(range(256)) * 20,
}


@pytest.mark.parametrize(("says", "data"), FILES.items())
def test_a_file_is_known_by_how_it_begins(says, data):
    assert kind_of(data) == says


@pytest.mark.parametrize(
    ("kind", "says"), [("JPEG", "a picture"), ("GIF", "a picture"), ("WEBP", "a picture"), ("PDF", "a PDF")]
)
def test_what_other_programs_write_is_known(kind, says):
    assert kind_of(picture(kind)) == says


BOXES = {
    "a JSON file": [
        *(partial(document_file.read, kind) for kind in KINDS.values()),
        lambda data: asked.loads(data, "mix"),
    ],
    "an STL mesh": [stl.read],
    "a DXF drawing": [dxf.read],
    "an SVG drawing": [svg_outlines.read],
    "": [lambda data: weighed_csv.read(data, {})],
}


@pytest.mark.parametrize(("own", "read"), [(own, read) for own, boxes in BOXES.items() for read in boxes])
@pytest.mark.parametrize("says", FILES)
def test_every_box_says_what_it_was_given_and_prints_none_of_it(own, read, says):
    if says == own:
        return
    with pytest.raises(Refused) as found:
        read(FILES[says])
    text = f"{found.value} {refusals.says(found.value)} {refusals.beside(found.value)}"
    assert (
        text.isprintable()
        and "b'" not in text
        and "Error" not in text
        and "\ufffd" not in text
        and len(refusals.says(found.value)) < 200
    )


@pytest.mark.parametrize(
    ("name", "count"),
    [
        ("joints", 7),
        ("ballast", 21),
        ("layers", 13),
        ("hardware", 41),
        ("segments", 8),
        ("cavities", 13),
        ("pours", 7),
        ("trials", 13),
        ("allowances", 13),
    ],
)
def test_too_many_of_anything_is_said_without_a_programs_own_text(name, count):
    document = full() | {name: [{"key": f"k{n}"} for n in range(count)]}
    with pytest.raises(Refused) as found:
        BODY_SCHEMA.checked(document)
    assert not set("[]{}'") & set(refusals.says(found.value))


def test_the_41st_text_of_a_mould_is_refused_in_words():
    with pytest.raises(Refused) as found:
        mould_document.MOULD_SCHEMA.checked({**FULL, "texts": [{"key": f"t{n}"} for n in range(41)]})
    assert "0 to 40 rows" in refusals.says(found.value) and not set("[]{}'") & set(refusals.says(found.value))


@pytest.mark.parametrize(
    "value",
    [
        {"a": 1},
        [{"a": 1}],
        object(),
        b"\x00\x01",
        ["a"] * 500,
        "x\n" * 900,
        ("a", 2.5),
        1e400,
        12.000000000000004,
    ],
)
def test_whatever_was_given_is_one_short_line(value):
    assert brief(value).isprintable() and len(brief(value)) <= 60 and not set("{}[]") & set(brief(value))


@pytest.mark.parametrize(
    ("chapter", "most"),
    [
        ("Body document", KINDS["body"].most_bytes),
        ("Body document", body_file.MOST_MESH_BYTES),
        ("Mesh: STL", stl.MOST_BYTES),
        ("Photo", upright.MOST_BYTES),
        ("Outlines", outlines.MOST_BYTES),
        ("Weighed", weighed_csv.MOST_BYTES),
        ("Float", KINDS["float"].most_bytes),
        ("Mould document", KINDS["mould"].most_bytes),
        ("Product", KINDS["product"].most_bytes),
        ("Blade", KINDS["blade"].most_bytes),
        ("`lamsik calc`: the other", asked.MOST_BYTES),
    ],
)
def test_the_limits_that_are_published_are_those_of_the_program(chapter, most):
    text = (Path(__file__).parents[2] / "docs" / "formats.md").read_text(encoding="utf-8")
    found = next(part for part in text.split("\n## ") if part.startswith(chapter))
    assert (f"{most / 1e6:g} MB" if most >= 1e6 else f"{most / 1e3:g} kB") in found
    roomy = chapter in ("Body document", "Mesh: STL", "Photo", "Outlines")
    assert most <= (security.MOST_SHAPE if roomy else security.MOST_UPLOAD)
