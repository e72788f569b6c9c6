"""The body document of a piece born of a pour."""

from typing import Any

from lamsik.core.castings.born import Born, as_cast
from lamsik.documents.body.document import to_design, with_design
from lamsik.documents.rows import Document


def cast_content(content: Document, born: Born) -> dict[str, Any]:
    """A body document as it was really cast."""
    return with_design(dict(content), as_cast(to_design(content), born))
