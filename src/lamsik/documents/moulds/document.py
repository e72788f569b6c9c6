"""The mould document: a mould as JSON (format `lamsik-mould`); its master's body travels in the file, in
the shop it is named by revision.
"""

import json
from dataclasses import asdict
from functools import lru_cache
from typing import Any

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.moulds import masters
from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.layout import (
    CavitySpot,
    Funnel,
    Keys,
    Mould,
    Text,
    Vent,
    Well,
    arranged,
    lying,
    lying_true,
    usual_stand,
)
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.pull import OPEN, TWO_PART, best_parting, choices, features
from lamsik.core.rows import checked_row
from lamsik.core.shapes.sources import Source
from lamsik.core.tank.mass import budget
from lamsik.documents.body import document as body_document

FORMAT, VERSION = "lamsik-mould", 1
MOST_BYTES = 400_000
Document = dict[str, Any]
GROUPS: dict[str, type] = {"cavities": CavitySpot, "vents": Vent, "wells": Well, "texts": Text}
BLOCKS: dict[str, type] = {"funnel": Funnel, "keys": Keys}
SHOP: dict[str, tuple[Any, ...]] = {
    "mould_product": (str,),
    "casting_product": (str,),
    "casting_c": (int, float, None),
    "level_deg": (int, float),
    "injector": (bool,),
}
"""Fields the shop adds to the core's mould: what it is made of, what is cast in it and how hot, how level
the bench is.
"""
MASTER = {
    "kind",
    "name",
    "body_id",
    "revision",
    "weighed_id",
    "length_mm",
    "width_mm",
    "depth_mm",
    "volume_ml",
    "mass_g",
    "demouldings",
    "source",
    "document",
}
OWN = ("format", "version", "master", "typed", *GROUPS, *BLOCKS, *SHOP)


BLANK: Document = {
    "format": FORMAT,
    "version": VERSION,
    "typed": {},
    "mould_product": "",
    "casting_product": "",
    "casting_c": None,
    "level_deg": 0.3,
    "injector": False,
}
"""What a mould document has beside its mould and its master."""


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    document = framed(found)
    mould = to_mould(document, master_of(document["master"]))
    return with_mould({**BLANK, **document}, mould)


def framed(document: Any) -> Document:
    """The document if it has the frame of a mould and a master that can be. Raises `Refused` otherwise."""
    if (
        not isinstance(document, dict)
        or document.get("format") != FORMAT
        or document.get("version") != VERSION
    ):
        raise Refused("format", document, f"a {FORMAT} document of version {VERSION} is needed")
    master = document.get("master")
    if not isinstance(master, dict):
        raise Refused("master", master, "an object is needed")
    extra = sorted(set(master) - MASTER)
    require(not extra, "master", extra[0] if extra else None, f"known are {', '.join(sorted(MASTER))}")
    require(
        master.get("kind") in masters.FROM,
        "master.kind",
        master.get("kind"),
        f"one of {', '.join(masters.FROM)}",
    )
    require(
        isinstance(master.get("name", ""), str) and len(master.get("name", "")) <= 160,
        "master.name",
        master.get("name"),
        "a short text is needed",
    )
    for name in ("body_id", "revision", "weighed_id"):
        value = master.get(name)
        require(
            value is None or (isinstance(value, int) and not isinstance(value, bool)),
            f"master.{name}",
            value,
            "a whole number",
        )
    if master.get("demouldings") is not None:
        finite_between("master.demouldings", master["demouldings"], 0, 10_000)
    require(isinstance(document.get("typed", {}), dict), "typed", None, "an object is needed")
    for name, kinds in SHOP.items():
        value = document.get(name)
        good = (
            value is None
            and (None in kinds or name not in document)
            or any(
                k is not None and isinstance(value, k) and (k is bool or not isinstance(value, bool))
                for k in kinds
            )
        )
        require(good, name, value, "a value of its kind is needed")
        if isinstance(value, str):
            require(len(value) <= 80, name, value[:40], "a short text is needed")
    if document.get("casting_c") is not None:
        finite_between("casting_c", document["casting_c"], -20.0, 1200.0, "°C")
    finite_between("level_deg", document.get("level_deg", 0.0), 0.0, 20.0, "°")
    return document


def to_mould(document: Document, master: Master) -> Mould:
    """The mould a framed document describes, of a master. Raises `Refused` naming the field."""
    plain = {name: value for name, value in document.items() if name not in OWN}
    found: dict[str, Any] = checked_row(plain, Mould, besides=("master", *GROUPS, *BLOCKS))
    for name, kind in BLOCKS.items():
        found[name] = kind(**checked_row(document.get(name, {}), kind, name))
        if name == "keys":
            require(
                float(found[name].count).is_integer(),
                "keys.count",
                found[name].count,
                "a whole number of keys",
            )
    for name, kind in GROUPS.items():
        rows = document.get(name, [])
        require(isinstance(rows, list) and len(rows) <= 40, name, rows, "a list of at most 40")
        found[name] = tuple(kind(**checked_row(row, kind, f"{name}.{n + 1}")) for n, row in enumerate(rows))
        keys = [row.key for row in found[name]]
        require(len(set(keys)) == len(keys), f"{name}.key", keys, "each key once")
    return Mould(
        master=master,
        **{**found, "keys": Keys(**{**asdict(found["keys"]), "count": int(found["keys"].count)})},
    )


def master_of(block: Document) -> Master:
    """The master a document's block describes: of the body document in it, of a volume weighed, or of
    sizes measured.
    """
    source = Source(**checked_row(block.get("source", {}), Source, "master.source"))
    mass = block.get("mass_g")
    if mass is not None:
        mass = finite_between("master.mass_g", mass, 0.01, 50_000.0, "g")
    name = str(block.get("name", ""))
    if block["kind"] == masters.BODY:
        require(
            isinstance(block.get("document"), dict),
            "master.document",
            None,
            "the body it is made from is not in the file",
        )
        return _of_design(json.dumps(block["document"], sort_keys=True), name, mass)
    length, width, depth = (
        finite_between(f"master.{field}", block.get(field), 1.0, 600.0, "mm")
        for field in ("length_mm", "width_mm", "depth_mm")
    )
    made = masters.measured(name, length, width, depth, block.get("volume_ml"), mass)
    return Master(made.name, made.mesh, made.volume_mm3, made.mass_g, source, True)


@lru_cache(maxsize=64)
def _of_design(text: str, name: str, mass_g: float | None) -> Master:
    """Kept by the body's content: every look at a mould asks for its master anew."""
    design = body_document.to_design(body_document.checked(json.loads(text)))
    return masters.of_body(name or design.name, design.body, mass_g, design.source)


def of_body(name: str, body_id: int, revision: int, content: Document) -> tuple[Document, Master]:
    """The master block of a body's revision and its master; its mass is that of the bare blank."""
    design = body_document.to_design(content)
    block = {
        "kind": masters.BODY,
        "name": name,
        "body_id": body_id,
        "revision": revision,
        "mass_g": round(budget(design).up_to("carved"), 2),
        "demouldings": None,
    }
    return block, master_of({**block, "document": content})


def of_weighed(
    name: str,
    weighed_id: int,
    air_g: float,
    volume_ml: float,
    sizes_mm: tuple[float, float, float],
    source: dict[str, str] | None = None,
) -> tuple[Document, Master]:
    """The master block of a weighed thing: its volume from the weigh bench, its size as measured."""
    block = {
        "kind": masters.WEIGHED,
        "name": name,
        "weighed_id": weighed_id,
        "mass_g": air_g,
        "volume_ml": round(volume_ml, 3),
        "demouldings": None,
        "source": source or {"kind": "own", "note": ""},
        **dict(zip(("length_mm", "width_mm", "depth_mm"), sizes_mm, strict=True)),
    }
    return block, master_of(block)


def with_mould(document: Document, mould: Mould) -> Document:
    """The document with a mould's values; master, texts typed and the shop's fields stay."""
    plain = {
        name: getattr(mould, name)
        for name in (
            "name",
            "kind",
            "pull",
            "parting_mm",
            "slant_deg",
            "edge_mm",
            "floor_mm",
            "cover_mm",
            "length_mm",
            "width_mm",
            "height_mm",
            "boards",
            "stand",
            "tilt_deg",
            "bump_mm",
            "thin_mm",
            "shrink_percent",
            "overfill_ml",
        )
    }
    return {
        **document,
        **plain,
        **{name: asdict(getattr(mould, name)) for name in BLOCKS},
        **{name: [asdict(row) for row in getattr(mould, name)] for name in GROUPS},
    }


def blank(
    name: str, block: Document, master: Master, kind: str, pull: str, parting_mm: float = 0.0
) -> Document:
    """A mould of a master to begin from: one cavity, box as needed."""
    first = Mould(
        name,
        master,
        kind,
        pull,
        parting_mm,
        cavities=(CavitySpot("c1", 500.0, 500.0),),
        stand=usual_stand(kind),
    )
    return with_mould({**BLANK, "master": block}, arranged(first, 1))


def first_layout(block: Document, master: Master) -> Document:
    """A first layout of the kind advised for a master, pulled where least leans in, parted there."""
    tried = []
    name = f"{master.name} mould"[:120]
    for pull in ("side", "back", "belly"):
        made = to_mould(blank(name, block, master, TWO_PART, pull), master)
        parting = best_parting(lying_true(made))
        found = features(lying_true(made), parting, 0.0, seen(lying(made))[1])
        tried.append(
            (found.flat != "lower", round(found.undercut_share, 2), pull != "side", pull, parting, found)
        )
    *_, pull, parting, found = min(tried, key=lambda row: row[:3])
    kind = choices(found)[0].kind
    return blank(name, block, master, kind, str(pull), 0.0 if kind == OPEN else round(float(parting), 2))
