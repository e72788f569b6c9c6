"""A sheet-metal blade as a document; as a file, format `lamsik-blade`, also carried by its DXF."""

from dataclasses import asdict
from typing import Any, TypeGuard

from lamsik.core.errors import Refused, require
from lamsik.core.rows import checked_row
from lamsik.core.shapes.blades import SNAPS, Blade, SnapHole
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document

FORMAT, VERSION = "lamsik-blade", 1


def content_of(blade: Blade) -> Document:
    """The blade as it is kept."""
    return {**asdict(blade), "holes": [asdict(hole) for hole in blade.holes]}


def blade_of(content: Document) -> Blade:
    """The blade as kept. Raises `Refused` naming the field, what was given, what is allowed."""
    holes = content.get("holes")
    if not isinstance(holes, list | tuple) or [
        hole.get("key") if isinstance(hole, dict) else None for hole in holes
    ] != list(SNAPS):
        raise Refused("holes", holes, f"a list of two holes, {' and '.join(SNAPS)}")
    made = tuple(SnapHole(**checked_row(hole, SnapHole, "hole")) for hole in holes)
    plain = {name: value for name, value in content.items() if name != "holes"}
    return Blade(**checked_row(plain, Blade, besides=("holes",)), holes=made)


def is_blade(found: Any) -> TypeGuard[dict[str, Any]]:
    """Whether a parsed file says that it is a blade."""
    return isinstance(found, dict) and found.get("format") == FORMAT


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    require(is_blade(found), "format", None, f"a {FORMAT} document of version {VERSION} is needed")
    require(found.get("version") == VERSION, "version", found.get("version"), f"must be {VERSION}")
    return content_of(blade_of({k: v for k, v in found.items() if k not in ("format", "version")}))


BLADE: Kind[None, Blade] = Kind(
    name="blade",
    stem="K",
    format=FORMAT,
    version=VERSION,
    most_bytes=100_000,
    brought_in=brought_in,
    filed=lambda document: {"format": FORMAT, "version": VERSION, **document},
    value=lambda document, _edit, _shop: blade_of(document),
)
