"""Edits of a mould document, as the page sends them: typed measures, choices, cavities dragged, vents
suggested and taken off.
"""

from collections.abc import Callable
from dataclasses import asdict, replace

from lamsik.core.errors import Refused, finite_between, one_of, require, rule
from lamsik.core.moulds.advice import escapes, high_points_of, turns
from lamsik.core.moulds.layout import (
    CavitySpot,
    Mould,
    Text,
    Vent,
    Well,
    arranged,
    box,
    usual_stand,
)
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.pull import best_parting
from lamsik.core.moulds.vents import fewest_vents
from lamsik.core.trade.mould_kinds import OPEN
from lamsik.documents.adding import adding
from lamsik.documents.engine import Kind, Reference
from lamsik.documents.moulds.document import (
    MOST_BYTES,
    MOULD_SCHEMA,
    brought_in,
    first_layout,
    to_mould,
    with_mould,
)
from lamsik.documents.rows import Document, free_key
from lamsik.documents.typed import Edit, word

Make = Callable[[Document], Master]
"""The master that a document's block names."""

PRODUCTS = ("mould_product", "casting_product")
EMPTIES = (
    "length_mm",
    "width_mm",
    "height_mm",
    "second_high_mm",
    "casting_c",
    "mass_g",
    "volume_ml",
    "demouldings",
)
OF_MASTER = ("name", "length_mm", "width_mm", "depth_mm", *EMPTIES)
"""What of a master can be set; the rest is what it was made from."""


def _before_set(document: Document, path: str, text: str, make: Make) -> None:
    leaf = path.rpartition(".")[2]
    require(not path.startswith("master.") or leaf in OF_MASTER, path, text, rule("not-typed"))


def _chosen(document: Document, path: str, make: Make) -> Document:
    """Another kind stands as is usual for it; another pull is parted and laid out anew."""
    leaf = path.rpartition(".")[2]
    if path == "kind":
        document["stand"], document["tilt_deg"] = usual_stand(document["kind"]), 0.0
    if leaf == "pull":
        document.update(
            parting_mm=0.0, slant_deg=0.0, vents=[], length_mm=None, width_mm=None, height_mm=None
        )
        document["parting_mm"] = round(
            best_parting(_mould({**document, "cavities": _somewhere(document)}, make).lies_true), 2
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


def _mould(document: Document, make: Make) -> Mould:
    return to_mould(document, make(document["master"]))


def _again(document: Document, make: Make) -> Document:
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


def _arrange(document: Document, edit: Edit, make: Make) -> Document:
    """So many cavities side by side."""
    count = int(finite_between("count", edit.get("count", len(document["cavities"])), 1, 12))
    rows = [{"key": f"c{n + 1}", "x_mm": 900.0, "y_mm": 900.0, "turn_deg": 0.0} for n in range(count)]
    return _again({**document, "cavities": rows}, make)


def _point(document: Document, edit: Edit, make: Make) -> Document:
    """A cavity, well or text dragged: to x_mm and value_mm (y)."""
    key = word(edit, "line")
    row = next(
        (row for group in ("cavities", "wells", "texts") for row in document[group] if row["key"] == key),
        None,
    )
    if row is None:
        raise Refused("line", key, rule("thing-of-mould"))
    row["x_mm"] = finite_between("x_mm", edit.get("x_mm", row["x_mm"]), -2000.0, 2000.0, "mm")
    row["y_mm"] = finite_between("value_mm", edit.get("value_mm", row["y_mm"]), -2000.0, 2000.0, "mm")
    return document


def _cavity(document: Document, edit: Edit, make: Make, key: str) -> CavitySpot:
    """Beside the last, as far as two lie apart."""
    last, y = document["cavities"][-1], max(row["y_mm"] for row in document["cavities"])
    apart = arranged(_mould({**document, "cavities": _somewhere(document)}, make), 2).cavities
    document["width_mm"] = None
    return CavitySpot(key, last["x_mm"], y + apart[1].y_mm - apart[0].y_mm, last["turn_deg"])


def _well(document: Document, edit: Edit, make: Make, key: str) -> Well:
    mould = _mould(document, make)
    place = round(box(mould).length_mm / 2, 1), round(mould.edge_mm / 2, 1)
    return Well(key, *place, min(8.0, mould.edge_mm * 0.6))


def _text(document: Document, edit: Edit, make: Make, key: str) -> Text:
    return Text(key, word(edit, "says") or "VB")


ADDS = {
    "cavities": adding("cavities", "c", _cavity),
    "wells": adding("wells", "w", _well),
    "texts": adding("texts", "t", _text),
}
"""What can be put on a mould."""


def _add(document: Document, edit: Edit, make: Make) -> Document:
    return one_of("group", word(edit, "group"), ADDS)(document, edit, make)


def _removed(document: Document, group: str, row: Document) -> Document:
    require(bool(document[group]) or group != "cavities", "cavities", row["key"], rule("one-cavity"))
    return document


def _vents(document: Document, edit: Edit, make: Make) -> Document:
    """A vent at every high point that still traps air."""
    for turn in turns(_mould(document, make)):
        for point in high_points_of(_mould(document, make), turn):
            x, y, z = (round(v, 2) for v in point.place_mm)
            document["vents"].append(asdict(Vent(free_key(document["vents"], "v"), x, y, z)))
    return document


def _tilt(document: Document, edit: Edit, make: Make) -> Document:
    """The tilt that needs the fewest vents; vents there are go, they were for another tilt."""
    document["vents"] = []
    mould = _mould(document, make)
    stand = fewest_vents(
        mould.lies, mould.stand, escapes(mould), mould.bump_mm, turned_over=mould.kind == OPEN
    )
    document["tilt_deg"] = stand[0].tilt_deg
    document["typed"].pop("tilt_deg", None)
    return document


def _parting(document: Document, edit: Edit, make: Make) -> Document:
    """The parting height where least leans in."""
    document["parting_mm"] = round(best_parting(_mould(document, make).lies_true, document["slant_deg"]), 2)
    document["typed"].pop("parting_mm", None)
    return document


def _fit(document: Document, edit: Edit, make: Make) -> Document:
    """The box as small as the edge distance allows, the cavities moved together to its corner."""
    mould = replace(_mould(document, make), length_mm=None, width_mm=None, height_mm=None)
    return with_mould(document, mould)


def _read(document: Document, _edit: Edit, make: Make) -> Mould:
    return to_mould(document, make(document["master"]))


MOULD: Kind[Make, Mould] = Kind(
    name="mould",
    stem="M",
    schema=MOULD_SCHEMA,
    most_bytes=MOST_BYTES,
    read=brought_in,
    begins=first_layout,
    value=_read,
    refers=(
        Reference("master.body_id", "body", "id"),
        *(Reference(path, "product") for path in PRODUCTS),
    ),
    acts={
        "arrange": _arrange,
        "point": _point,
        "add": _add,
        "vents": _vents,
        "tilt": _tilt,
        "parting": _parting,
        "fit": _fit,
    },
    groups=("cavities", "vents", "wells", "texts"),
    texts=("name", "kind", "pull", "stand", "end", "half", "says", "shape", *PRODUCTS),
    empties=EMPTIES,
    never_empty=("master.length_mm", "master.width_mm"),
    whole=("count", "demouldings"),
    flags=("boards", "proud", "injector"),
    before_set=_before_set,
    chosen=_chosen,
    removed=_removed,
)
