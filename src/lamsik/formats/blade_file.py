"""The blade file: a sheet-metal blade as JSON (format `lamsik-blade`), also carried by its DXF."""

import json
from dataclasses import asdict
from typing import Any, TypeGuard

from lamsik.core.errors import Refused, require
from lamsik.core.rows import checked_row
from lamsik.core.shapes.blades import SNAPS, Blade, SnapHole
from lamsik.formats.json_text import json_text

FORMAT, VERSION = "lamsik-blade", 1
MOST_BYTES = 100_000


def document(blade: Blade) -> dict[str, Any]:
    """The blade with its format's name and version."""
    return {
        "format": FORMAT,
        "version": VERSION,
        **asdict(blade),
        "holes": [asdict(hole) for hole in blade.holes],
    }


def dumps(blade: Blade) -> str:
    """The file's text."""
    return json_text(document(blade))


def is_blade(found: Any) -> TypeGuard[dict[str, Any]]:
    """Whether a parsed file says that it is a blade."""
    return isinstance(found, dict) and found.get("format") == FORMAT


def sniffed(data: bytes) -> Any:
    """What a small JSON file holds; None where it is none."""
    try:
        return json.loads(data) if len(data) <= MOST_BYTES else None
    except (ValueError, RecursionError):
        return None


def of_document(found: dict[str, Any]) -> Blade:
    """The blade of a parsed file. Raises `Refused` naming the field, what was given, what is allowed."""
    require(found.get("version") == VERSION, "version", found.get("version"), f"must be {VERSION}")
    holes = found.get("holes")
    if not isinstance(holes, list) or [
        hole.get("key") if isinstance(hole, dict) else None for hole in holes
    ] != list(SNAPS):
        raise Refused("holes", holes, f"a list of two holes, {' and '.join(SNAPS)}")
    plain = {name: value for name, value in found.items() if name not in ("format", "version", "holes")}
    made = tuple(SnapHole(**checked_row(hole, SnapHole, "hole")) for hole in holes)
    return Blade(**checked_row(plain, Blade, besides=("holes",)), holes=made)
