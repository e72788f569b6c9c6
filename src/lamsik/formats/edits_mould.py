"""Edits of a mould document, as the page sends them: typed measures, choices, cavities dragged, vents
suggested and taken off.
"""

from collections.abc import Callable, Mapping
from dataclasses import asdict, replace
from typing import Any

from lamsik.core import units
from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.moulds.advice import escapes, high_points_of, turns
from lamsik.core.moulds.layout import (
    Mould,
    Spot,
    Text,
    Vent,
    Well,
    arranged,
    box,
    lying,
    lying_true,
    usual_stand,
)
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.pull import OPEN, best_parting
from lamsik.core.moulds.vents import fewest_vents
from lamsik.formats.amounts import amount, is_empty, note_typed
from lamsik.formats.edit_tools import free_key, holder_of
from lamsik.formats.edits import quantity_of
from lamsik.formats.json_text import copied
from lamsik.formats.mould_document import Document, framed, to_mould, with_mould

Edit = Mapping[str, Any]
TEXTS = ("name", "kind", "pull", "stand", "end", "half", "says", "mould_product", "casting_product")
MAY_BE_EMPTY = (
    "length_mm",
    "width_mm",
    "height_mm",
    "second_high_mm",
    "casting_c",
    "mass_g",
    "volume_ml",
    "demouldings",
)
WHOLE = ("count", "demouldings")
FLAGS = ("boards", "proud", "injector")


def apply(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """The document after one edit; `make` gives the master of its block. Raises `Refused` where it cannot
    be.
    """
    name = edit.get("do")
    if not isinstance(name, str) or name not in EDITS:
        raise Refused("do", name, f"one of {', '.join(EDITS)}")
    changed = framed(EDITS[name](copied(document), edit, make))
    to_mould(changed, make(changed["master"]))
    return changed


def _set(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    path, text = str(edit.get("path", "")), str(edit.get("text", ""))
    holder, leaf = holder_of(document, path)
    if leaf in TEXTS and path != "master.kind":
        return _chosen(document, holder, leaf, text.strip(), make)
    require(
        not path.startswith("master.")
        or leaf in MAY_BE_EMPTY
        or leaf in ("length_mm", "width_mm", "depth_mm"),
        path,
        text,
        "not typed here",
    )
    if (
        leaf in MAY_BE_EMPTY
        and is_empty(edit)
        and not path.startswith("master.length")
        and not path.startswith("master.width")
    ):
        holder[leaf] = None
        document["typed"].pop(path, None)
        return document
    kind = "volume" if leaf.endswith("_ml") else quantity_of(path)
    shown = "in" if edit.get("unit") == "in" and kind == "length" else units.STORED[kind]
    value = amount(edit, kind, path, shown)
    if leaf in WHOLE:
        require(value.is_integer(), path, text, "a whole number")
    holder[leaf] = int(value) if leaf in WHOLE else value
    note_typed(document, edit, path)
    return document


def _chosen(
    document: Document, holder: Document, leaf: str, text: str, make: Callable[[Document], Master]
) -> Document:
    holder[leaf] = text
    if leaf == "kind" and holder is document:
        document["stand"], document["tilt_deg"] = usual_stand(text), 0.0
    if leaf == "pull":
        document.update(
            parting_mm=0.0, slant_deg=0.0, vents=[], length_mm=None, width_mm=None, height_mm=None
        )
        document["parting_mm"] = round(
            best_parting(lying_true(_mould({**document, "cavities": _somewhere(document)}, make))), 2
        )
        return _again(document, make)
    if leaf == "stand":
        document.update(tilt_deg=0.0, vents=[])
    if leaf == "end":
        return _again(document, make)
    return document


def _somewhere(document: Document) -> list[Document]:
    """The cavities far from any wall, while their shadow is not known yet."""
    return [{**row, "x_mm": 900.0, "y_mm": 900.0} for row in document["cavities"]]


def _mould(document: Document, make: Callable[[Document], Master]) -> Mould:
    return to_mould(document, make(document["master"]))


def _again(document: Document, make: Callable[[Document], Master]) -> Document:
    """All cavities side by side anew."""
    mould = _mould(
        {
            **document,
            "cavities": _somewhere(document),
            "length_mm": None,
            "width_mm": None,
            "height_mm": None,
        },
        make,
    )
    return with_mould(document, arranged(mould, len(mould.cavities)))


def _arrange(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """So many cavities side by side."""
    count = int(finite_between("count", edit.get("count", len(document["cavities"])), 1, 12))
    rows = [{"key": f"c{n + 1}", "x_mm": 900.0, "y_mm": 900.0, "turn_deg": 0.0} for n in range(count)]
    return _again({**document, "cavities": rows}, make)


def _point(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """A cavity, well or text dragged: to x_mm and value_mm (y)."""
    key = str(edit.get("line"))
    row = next(
        (row for group in ("cavities", "wells", "texts") for row in document[group] if row["key"] == key),
        None,
    )
    if row is None:
        raise Refused("line", key, "a cavity, well or text of this mould")
    row["x_mm"] = finite_between("x_mm", edit.get("x_mm", row["x_mm"]), -2000.0, 2000.0, "mm")
    row["y_mm"] = finite_between("value_mm", edit.get("value_mm", row["y_mm"]), -2000.0, 2000.0, "mm")
    return document


def _add(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    group = str(edit.get("group"))
    mould = _mould(document, make)
    walls = box(mould)
    if group == "cavities":
        last = document["cavities"][-1]
        key = free_key(document["cavities"], "c")
        y = max(row["y_mm"] for row in document["cavities"])
        outer = _mould({**document, "cavities": _somewhere(document)}, make)
        step = arranged(outer, 2).cavities
        document["cavities"].append(
            asdict(Spot(key, last["x_mm"], y + step[1].y_mm - step[0].y_mm, last["turn_deg"]))
        )
        document["width_mm"] = None
    elif group == "wells":
        document["wells"].append(
            asdict(
                Well(
                    free_key(document["wells"], "w"),
                    round(walls.length_mm / 2, 1),
                    round(mould.edge_mm / 2, 1),
                    min(8.0, mould.edge_mm * 0.6),
                )
            )
        )
    elif group == "texts":
        document["texts"].append(
            asdict(Text(free_key(document["texts"], "t"), str(edit.get("says") or "VB")))
        )
    else:
        raise Refused("group", group, "cavities, wells or texts")
    return document


def _remove(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    group, key = str(edit.get("group")), edit.get("key")
    require(
        group in ("cavities", "vents", "wells", "texts"), "group", group, "cavities, vents, wells or texts"
    )
    kept = [row for row in document[group] if row["key"] != key]
    require(len(kept) < len(document[group]), group, key, "one of this mould's")
    require(bool(kept) or group != "cavities", "cavities", key, "a mould needs one cavity")
    document[group] = kept
    return document


def _vents(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """A vent at every high point that still traps air."""
    for turn in turns(_mould(document, make)):
        for point in high_points_of(_mould(document, make), turn):
            x, y, z = (round(v, 2) for v in point.place_mm)
            document["vents"].append(asdict(Vent(free_key(document["vents"], "v"), x, y, z)))
    return document


def _tilt(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """The tilt that needs the fewest vents; vents there are go, they were for another tilt."""
    document["vents"] = []
    mould = _mould(document, make)
    found = fewest_vents(
        lying(mould), mould.stand, escapes(mould), mould.bump_mm, turned_over=mould.kind == OPEN
    )
    document["tilt_deg"] = found[0].tilt_deg
    document["typed"].pop("tilt_deg", None)
    return document


def _parting(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """The parting height where least leans in."""
    document["parting_mm"] = round(best_parting(lying_true(_mould(document, make)), document["slant_deg"]), 2)
    document["typed"].pop("parting_mm", None)
    return document


def _flag(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    holder, leaf = holder_of(document, str(edit.get("path", "")))
    require(
        leaf in FLAGS and isinstance(edit.get("on"), bool), "path", leaf, f"{', '.join(FLAGS)}; true or false"
    )
    holder[leaf] = edit["on"]
    return document


def _fit(document: Document, edit: Edit, make: Callable[[Document], Master]) -> Document:
    """The box as small as the edge distance allows, the cavities moved together to its corner."""
    mould = replace(_mould(document, make), length_mm=None, width_mm=None, height_mm=None)
    return with_mould(document, mould)


EDITS: dict[str, Callable[[Document, Edit, Callable[[Document], Master]], Document]] = {
    "set": _set,
    "arrange": _arrange,
    "point": _point,
    "add": _add,
    "remove": _remove,
    "vents": _vents,
    "tilt": _tilt,
    "parting": _parting,
    "flag": _flag,
    "fit": _fit,
}
"""What can be done to a mould, by name."""
