"""The kinds of document there are."""

from typing import Any

from lamsik.documents.blades.document import BLADE
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import Kind
from lamsik.documents.floats.edits import FLOAT
from lamsik.documents.matches.document import MATCH
from lamsik.documents.moulds.edits import MOULD
from lamsik.documents.paints.document import PAINT
from lamsik.documents.products.document import PRODUCT
from lamsik.documents.schemes.document import SCHEME
from lamsik.documents.shots.document import SHOTS

KINDS: dict[str, Kind[Any, Any]] = {
    kind.name: kind for kind in (BODY, FLOAT, MOULD, SCHEME, PRODUCT, SHOTS, BLADE, PAINT, MATCH)
}
"""By the name their rows have."""
