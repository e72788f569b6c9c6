"""A paint scheme as a document: ordered layers, how it begins, its edits; as a file `lamsik-scheme`."""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import Refused, one_of, require, rule
from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.job import MatchJob
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import Layer, begun
from lamsik.core.paints.paint import PAINT_KINDS, Paint
from lamsik.documents.engine import Kind, Reference
from lamsik.documents.rows import Document, copied, free_key, row_of, take
from lamsik.documents.schemes.shape import FORMAT, NEW_IN_4, NO_JOB, SCHEME_SCHEMA, VERSION
from lamsik.documents.typed import Edit, word
from lamsik.documents.values import row_of as kept
from lamsik.documents.values import value_of

BEGINS = ("seal", "primer", "base", "fade", "eyes", "clear")
"""The layers of a new scheme."""
CLEAR = "clear"
ORDER = tuple(KINDS)
"""Kinds of layer in the order they usually lie."""


def blank(name: str) -> Document:
    """A new scheme: seal, primer, base, fade, eyes and one clear to start from."""
    return of_layers(name, [begun(kind, f"{kind}1") for kind in BEGINS])


def of_layers(name: str, layers: list[Layer]) -> Document:
    """A scheme of these layers."""
    rows = [kept(layer) for layer in layers]
    return {
        "format": FORMAT,
        "version": VERSION,
        "name": name,
        "layers": rows,
        **NEW_IN_4,
        **NO_JOB,
        "typed": {},
    }


def job_of(content: Mapping[str, Any]) -> MatchJob | None:
    """What a scheme is being matched to; None where it is not. Raises `Refused` where it cannot be read."""
    if content.get("match_before") is None:
        return None
    before: tuple[Layer, ...] = value_of(tuple[Layer, ...], content["match_before"])
    return MatchJob(content["match_to"], before)


def layers_of(content: Mapping[str, Any]) -> tuple[Layer, ...]:
    """The layers a scheme describes. Raises `Refused` where one cannot be."""
    layers: tuple[Layer, ...] = value_of(tuple[Layer, ...], content["layers"])
    return layers


def read(document: Mapping[str, Any]) -> tuple[Layer, ...]:
    """The layers of a scheme that is wholly checked. Raises `Refused`."""
    name = document["name"]
    require(bool(name.strip()), "name", name, rule("scheme-name"))
    layers = layers_of(document)
    keys = [layer.key for layer in layers]
    require(len(set(keys)) == len(keys), "layers", keys, rule("each-key-once"))
    return layers


def checked(document: Any) -> Document:
    """The document, if it is a scheme in all its fields. Raises `Refused`."""
    checked_document = SCHEME_SCHEMA.checked(document)
    read(checked_document)
    return checked_document


def brought_in(content: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    document = checked(content)
    kept_beside = {name: document[name] for name in NEW_IN_4}
    return {**of_layers(document["name"].strip(), list(read(document))), **kept_beside}


def filed(document: Document) -> Document:
    """What its file holds: what it is being matched to is this shop's own."""
    return {name: value for name, value in document.items() if name not in ("typed", *NO_JOB)}


def _before_set(document: Document, path: str, text: str, _shop: object) -> None:
    group, _, rest = path.partition(".")
    if group == "layers" and rest.partition(".")[2] in ("key", "kind"):
        raise Refused(path, text, rule("keeps-kind-layer"))


LEFT_FREE = ("intended", "locked")
"""What may be said of a layer that is locked."""
OF_A_LAYER = ("up", "shelf")
"""Special edits that change the layer of their key."""


def locked_layer(document: Document, edit: Edit) -> str:
    """The name of the locked layer that an edit of a document with layers would change; empty where it
    changes none.
    """
    group, _, rest = word(edit, "path").partition(".")
    key, _, field = rest.partition(".")
    if edit["do"] not in ("set", "flag"):
        group = (
            word(edit, "group") if edit["do"] == "remove" else "layers" if edit["do"] in OF_A_LAYER else ""
        )
        key, field = word(edit, "key"), ""
    if group != "layers" or field in LEFT_FREE:
        return ""
    return next((row["name"] for row in document["layers"] if row["key"] == key and row["locked"]), "")


NO_SWATCH: Document = {"swatch": None, "code": ""}
"""What a paint has that is none of the shelf's."""
OF_LOOKS = ("paint.kind", "paint.colour")
"""What a swatch says, where a paint has one."""
KEPT = ("begins", "ends", "top", "bottom", "side", "words", "seed")
"""Of a place, what stays when another shape is chosen."""


def _chosen(document: Document, path: str, _shop: object) -> Document:
    """Another kind of paint covers as its kind does; another shape begins as the kinds of layer have it. What
    was seen of a swatch holds of no other colour.
    """
    if path == "match_to":
        return _job(document)
    group, _, rest = path.partition(".")
    key, _, field = rest.partition(".")
    if group != "layers" or field not in (*OF_LOOKS, "place.shape", "eye"):
        return document
    layer = row_of(document, group, key)
    if field == "eye":
        return _eyes_in_turn(document, layer)
    if field in OF_LOOKS:
        layer["paint"] |= NO_SWATCH
    if field == "paint.kind" and layer["paint"]["kind"] in PAINT_KINDS:
        layer["paint"]["covering_percent"] = 100.0 * PAINT_KINDS[layer["paint"]["kind"]].covering_share
        document["typed"].pop(f"layers.{key}.paint.covering_percent", None)
    if field == "place.shape":
        shape = layer["place"]["shape"]
        usual = next((one for one in (begun(kind, key).place for kind in KINDS) if one.shape == shape), None)
        if usual is not None:
            stays = {name: layer["place"][name] for name in KEPT}
            layer["place"] = {**kept(usual), **stays}
            _forget(document, f"layers.{key}.place.", [f"layers.{key}.place.{name}" for name in KEPT])
    return document


def _eyes_in_turn(document: Document, layer: Document) -> Document:
    """Eyes of a kind go on when it asks for: kept ones are masked first, those that a clear seals lie under
    the first, domed ones are glued on the last.
    """
    rows, kind = document["layers"], EYE_KINDS.get(layer["eye"])
    if kind is None:  # the schema says which there are
        return document
    rows.remove(layer)
    clears = [n for n, row in enumerate(rows) if row["kind"] == CLEAR]
    first = clears[0] if clears else len(rows)
    rows.insert(0 if kind.is_there else len(rows) if kind.may_be_last else first, layer)
    return document


def _forget(document: Document, under: str, but: list[str]) -> None:
    """What was typed of figures that are no longer as typed."""
    gone = [one for one in document["typed"] if one.startswith(under) and not one.startswith(tuple(but))]
    for path in gone:
        del document["typed"][path]


def _measured(document: Document, path: str, before: Document, _shop: object) -> Document:
    """The longest wait is never shorter than the least; a covering power that is typed is no swatch's."""
    group, _, rest = path.partition(".")
    if group == "layers" and rest.partition(".")[2] in ("paint.covering_percent", "paint.swatch_um"):
        row_of(document, "layers", rest.partition(".")[0])["paint"] |= NO_SWATCH
    if group == "layers" and rest.endswith(".wait_h"):
        layer = row_of(document, "layers", rest.partition(".")[0])
        if layer["window_h"] is not None:
            layer["window_h"] = max(layer["window_h"], layer["wait_h"])
    return document


def _add(document: Document, edit: Edit, _shop: object) -> Document:
    """One more layer of a kind, after the last that usually lies under it."""
    kind, rows = word(edit, "kind"), document["layers"]
    one_of("kind", kind, KINDS)
    order = ORDER.index(kind)
    at = max((n for n, row in enumerate(rows, start=1) if ORDER.index(row["kind"]) <= order), default=0)
    rows.insert(at, kept(begun(kind, free_key(rows, kind))))
    return document


def _from_shelf(document: Document, edit: Edit, shop: Mapping[str, Paint] | None) -> Document:
    """A paint off the shelf, or a colour as it is mixed, with its looks, in place of what a layer has."""
    layer = row_of(document, "layers", edit.get("key"))
    layer["paint"] = kept(take(shop or {}, word(edit, "code"), "paint on the shelf"))
    _forget(document, f"layers.{layer['key']}.paint.", [])
    return document


def _job(document: Document) -> Document:
    """A scheme that is matched to something: all its layers are locked, and what they were is kept until the
    sample has no name any more.
    """
    if document["match_to"] and document["match_before"] is None:
        document["match_before"] = copied({"layers": document["layers"]})["layers"]
        for row in document["layers"]:
            row["locked"] = True
    elif not document["match_to"] and document["match_before"] is not None:
        was = {row["key"]: row["locked"] for row in document["match_before"]}
        for row in document["layers"]:
            row["locked"] = was.get(row["key"], False)
        document["match_before"] = None
    return document


def _up(document: Document, edit: Edit, _shop: object) -> Document:
    """A layer under the one that lies beneath it."""
    row, rows = row_of(document, "layers", edit.get("key")), document["layers"]
    at = max(rows.index(row) - 1, 0)
    rows.remove(row)
    rows.insert(at, row)
    return document


TEXTS = (
    "name",
    "colour",
    "note",
    "side",
    "kind",
    "chemistry",
    "caution",
    "shape",
    "anchor",
    "outline",
    "words",
    "intended",
    "by",
    "eye",
    "season",
    "fish",
    "replaced_by",
    "match_to",
)
"""Fields of a layer that hold a text."""

SCHEME: Kind[Mapping[str, Paint] | None, tuple[Layer, ...]] = Kind(
    name="scheme",
    stem="S",
    schema=SCHEME_SCHEMA,
    most_bytes=200_000,
    read=brought_in,
    filed=filed,
    begins=blank,
    value=lambda document, _edit, _shop: read(document),
    acts={"add": _add, "up": _up, "shelf": _from_shelf},
    refers=(Reference("replaced_by", "scheme"),),
    tags=("season", "fish"),
    groups=("layers",),
    texts=TEXTS,
    empties=("window_h", "cure_h", "mass_g", "pressure_bar", "distance_mm"),
    whole=("count", "passes", "seed"),
    flags=("scuff", "locked"),
    before_set=_before_set,
    chosen=_chosen,
    locked=locked_layer,
    measured=_measured,
)
