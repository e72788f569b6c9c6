"""Files that cannot be read are refused in words: the table `tests/refused/files.txt`, what reads it, what
is in it (as Python says it), and what is said.
"""

from pathlib import Path

import pytest

from lamsik.core.errors import Refused
from lamsik.formats import body_file, dxf, svg_outlines, upright, weighed_csv
from lamsik.words import refusals

SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm"'
    ' height="20mm">%s</svg>'
)
DXF = "0\nSECTION\n2\nENTITIES\n%s0\nENDSEC\n0\nEOF\n"
READERS = {
    "svg_outlines.read": svg_outlines.read,
    "dxf.read": dxf.read,
    "upright.normalised": upright.normalised,
    "weighed_csv.read": lambda data: weighed_csv.read(data, {}),
    "body_file.read": body_file.read,
}
TABLE = Path(__file__).parents[1] / "refused/files.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]


@pytest.mark.parametrize(("reader", "text", "says"), ROWS)
def test_what_cannot_be_read_is_said_in_words(reader, text, says):
    data = eval(text, {"SVG": SVG, "DXF": DXF}).encode("latin-1" if "\\xff" in text else "utf-8")  # noqa: S307
    with pytest.raises(Refused) as refused:
        READERS[reader](data)
    assert says.lower() in refusals.says(refused.value).lower() and len(refusals.says(refused.value)) < 300
