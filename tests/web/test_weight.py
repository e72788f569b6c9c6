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
