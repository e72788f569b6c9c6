"""What goes over the wire: text compressed, and of the Japanese face only the slices that a page's own
text needs.
"""

import gzip
import io
import re
from urllib.parse import quote

import pytest
from fontTools.ttLib import TTFont

from lamsik.web.shared.packing import LEAST
from lamsik.web.shared.static import FOLDER
from tests.demo_rows import FERRY_RUNNER, PIECE_LITTLE_GLIDER

URLS = [
    "/",
    f"/tank/{FERRY_RUNNER}",
    "/shapes",
    f"/pieces/{PIECE_LITTLE_GLIDER}/card",
    f"/shapes/{FERRY_RUNNER}",
]


@pytest.mark.parametrize("url", URLS)
def test_text_is_compressed_for_those_who_take_it_and_is_the_same(demo, url):
    plain = demo.get(url)
    packed = demo.get(url, headers={"Accept-Encoding": "br, gzip"})
    assert "Content-Encoding" not in plain.headers and packed.headers["Content-Encoding"] == "gzip"
    assert "Accept-Encoding" in packed.headers["Vary"] and int(packed.headers["Content-Length"]) == len(
        packed.data
    ) < 0.5 * len(plain.data)
    token = re.compile(rb'(csrf[-_]token"[^>]*(?:content|value)|name="once" value)="[^"]*"')
    assert len(token.sub(b"", gzip.decompress(packed.data))) == pytest.approx(
        len(token.sub(b"", plain.data)), abs=400
    )


def test_files_of_ours_are_compressed_and_pictures_and_short_answers_are_not(demo):
    style = re.search(r'href="(/static/[^"]+shop\.css)"', demo.get("/").text).group(1)
    with demo.get(style, headers={"Accept-Encoding": "gzip"}) as packed, demo.get(style) as plain:
        assert gzip.decompress(packed.data) == plain.data and "immutable" in packed.headers["Cache-Control"]
    font = style.replace("css/shop.css", "vendor/fonts/greek.woff2")
    assert all(
        "Content-Encoding" not in demo.get(url, headers={"Accept-Encoding": "gzip"}).headers
        for url in (font, "/healthz", "/cards/x/999999.svg")
    )
    assert "Content-Encoding" not in demo.get("/", headers={"Accept-Encoding": "gzip;q=0, identity"}).headers
    assert len(demo.get("/healthz").data) < LEAST


def test_our_own_scripts_and_styles_go_out_without_what_only_people_read(demo):
    page = demo.get(f"/tank/{FERRY_RUNNER}").text
    style = re.search(r'href="(/static/[^"]+shop\.css)"', page).group(1)
    root = style.removesuffix("css/shop.css")
    sent = demo.get(style).text
    assert "/*" not in sent and "\n\n" not in sent and len(sent) < 100_000 and ".waterline" in sent
    for path in (FOLDER / "js").rglob("*.js"):
        name = path.relative_to(FOLDER).as_posix()
        answer, whole = demo.get(f"{root}{name}"), path.read_text("utf-8")
        slim = answer.get_data(as_text=True)
        assert answer.mimetype == "text/javascript" and "immutable" in answer.headers["Cache-Control"]
        assert not re.search(r"^\s*(//|/\*)", slim, re.M) and len(slim) < len(whole)
        assert set(re.findall(r"export (?:async )?function (\w+)", whole)) <= set(re.findall(r"\w+", slim))
    assert demo.get(f"{root}js/shared/none.js").status_code == 404
    assert demo.get(f"{root}js/shared/../../../app.py").status_code == 404


@pytest.mark.parametrize("text", ["三浦 かおり", "ミノー90", "鰹と鯵", "Plain"])
def test_the_slices_hold_every_character_that_was_asked_for(demo, text):
    sheet = demo.get(f"/wide.css?of={quote(text)}").text
    shown = set()
    for source, span in re.findall(r'url\("([^"]+)"\).*?unicode-range: ([^;]+);', sheet):
        with demo.get(source) as sent:
            held = TTFont(io.BytesIO(sent.data)).getBestCmap()
        codes = {int(code.strip().removeprefix("U+"), 16) for code in span.split(",")}
        assert codes <= set(held)
        shown |= codes
    assert {ord(char) for char in text if ord(char) >= 0x3000} <= shown
    assert len(sheet) < 3_000
