"""What a wanted colour asks, as one JSON file: the colour, the paints it may be mixed from, what was mixed
before (format `lamsik-match-asked`).
"""

from collections.abc import Mapping, Sequence
from typing import Any

from lamsik.core.errors import require
from lamsik.core.paints.taught import Shelf
from lamsik.core.paints.wanted import WantedColour
from lamsik.core.quantities import file_size
from lamsik.documents.matches.document import MATCH, to_match
from lamsik.documents.paints.document import PAINT, to_paint
from lamsik.documents.rows import Document
from lamsik.formats.document_file import read_json
from lamsik.formats.json_text import json_text

FORMAT, VERSION = "lamsik-match-asked", 1
MOST_BYTES = 2_000_000
MOST_PAINTS, MOST_MIXED = 150, 200


def write(match: Document, paints: Mapping[str, Document], mixed: Sequence[Document]) -> str:
    """The file of a colour with the shelf it is asked of."""
    return json_text(
        {
            "format": FORMAT,
            "version": VERSION,
            "match": MATCH.filed(match),
            "paints": {code: PAINT.filed(one) for code, one in paints.items()},
            "mixed": [MATCH.filed(one) for one in mixed],
        }
    )


def read(data: bytes) -> tuple[WantedColour, Shelf, tuple[WantedColour, ...]]:
    """The colour, the shelf, what was mixed. Raises `Refused` naming what is wrong."""
    require(len(data) <= MOST_BYTES, "file", file_size(len(data)), f"at most {file_size(MOST_BYTES)}")
    content = read_json(data)
    known = content if isinstance(content, dict) else {}
    is_ours = (known.get("format"), known.get("version")) == (FORMAT, VERSION)
    require(is_ours, "format", str(known.get("format", "none"))[:40], f"{FORMAT}, version {VERSION}")
    paints: Any = known.get("paints")
    mixed: Any = known.get("mixed", [])
    require(isinstance(paints, dict), "paints", type(paints).__name__, "an object of paints by code")
    require(len(paints) <= MOST_PAINTS, "paints", len(paints), f"at most {MOST_PAINTS} paints")
    require(isinstance(mixed, list), "mixed", type(mixed).__name__, "a list of mixed swatches")
    require(len(mixed) <= MOST_MIXED, "mixed", len(mixed), f"at most {MOST_MIXED} mixed swatches")
    shelf = tuple((str(code), to_paint(PAINT.brought_in(one))) for code, one in paints.items())
    return (
        to_match(MATCH.brought_in(known.get("match"))),
        shelf,
        tuple(to_match(MATCH.brought_in(one)) for one in mixed),
    )
