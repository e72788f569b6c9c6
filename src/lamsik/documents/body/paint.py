"""Edits of the paint on a body: a scheme laid on it, and what is otherwise here than in the scheme."""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.paints.adjusting import FIELDS, LEFT_OUT, LIKE, Adjustment, resolved
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.tank.sensitivities import with_clear_coats
from lamsik.documents.body.document import to_design, with_design
from lamsik.documents.engine import LOCKED
from lamsik.documents.rows import Document, holder_of, row_of, take
from lamsik.documents.typed import word
from lamsik.documents.values import row_of as kept
from lamsik.documents.values import value_of

GROUP, CLEAR = "layers", "clear"


def lay(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """A scheme laid on the body, anew or for the first time; what was otherwise here stays so in the scheme
    it was said of.
    """
    code = word(edit, "code")
    layers = take(catalogue.schemes, code, "scheme")
    if code != document["scheme"]:
        document["adjustments"] = []
    there = {layer.key for layer in layers}
    more = {row["layer"] for row in document["adjustments"] if row["field"] == LIKE and row["value"] in there}
    document["adjustments"] = [row for row in document["adjustments"] if row["layer"] in there | more]
    adjustments = value_of(tuple[Adjustment, ...], document["adjustments"])
    document[GROUP], document["scheme"] = kept(resolved(layers, adjustments)), code
    document["scheme_version"] = catalogue.versions.get(code, 0)
    return document


def as_in_scheme(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """A layer as the scheme has it by now, or back on where it was left out."""
    key = word(edit, "key")
    left = [row for row in document["adjustments"] if row["layer"] != key]
    require(len(left) < len(document["adjustments"]), "key", key, rule("as-in-the-scheme"))
    document["adjustments"] = left
    return lay(document, {"code": document["scheme"]}, catalogue)


def noted(document: Document, path: str) -> Document:
    """The document that remembers a figure set on a layer of its scheme; other paths leave it as it is."""
    group, _, rest = path.partition(".")
    key, _, name = rest.partition(".")
    if group == GROUP and document["scheme"] and name in FIELDS:
        holder, leaf = holder_of(document, path)
        _note(document, key, name, holder[leaf])
        layer = row_of(document, GROUP, key)
        if name == "wait_h" and layer["window_h"] is not None and layer["window_h"] < layer["wait_h"]:
            layer["window_h"] = layer["wait_h"]
            _note(document, key, "window_h", layer["window_h"])
    return document


def left_out(document: Document, layer: Document) -> Document:
    """The document that remembers that a layer of its scheme is left out, and what it was called."""
    if document["scheme"]:
        key = layer["key"]
        document["adjustments"] = [row for row in document["adjustments"] if row["layer"] != key]
        _note(document, key, LEFT_OUT, layer["name"])
    return document


def clears(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """So many clear coats, each like the last one; what the scheme does not have is remembered."""
    count = int(finite_between("count", edit.get("count"), 0, 12))
    before = {row["key"]: row for row in document[GROUP]}
    coated = with_design(document, with_clear_coats(to_design(document), count))
    after = {row["key"] for row in coated[GROUP]}
    if not document["scheme"]:
        return coated
    last = next((key for key, row in reversed(before.items()) if row["kind"] == CLEAR), None)
    for key, row in before.items():
        if key not in after:
            require(not row["locked"] or edit.get("though") == row["name"], GROUP, row["name"], LOCKED)
            coated = left_out(coated, row)
    likes = {row["layer"]: row["value"] for row in coated["adjustments"] if row["field"] == LIKE}
    for key in sorted(after - before.keys()):
        if last is not None:
            _note(coated, key, LIKE, likes.get(last, last))
    return coated


def _note(document: Document, key: str, name: str, value: Any) -> None:
    others = [row for row in document["adjustments"] if (row["layer"], row["field"]) != (key, name)]
    document["adjustments"] = [*others, kept(Adjustment(key, name, value))]
