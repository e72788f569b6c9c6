"""The blade file: a sheet-metal blade as JSON (format `lamsik-blade`), also carried by its DXF."""

import json
from dataclasses import asdict
from typing import Any, TypeGuard

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.shapes.blades import SNAPS, Blade, SnapHole

FORMAT, VERSION = "lamsik-blade", 1
MOST_BYTES = 100_000
TEXTS = ("name", "metal", "key")


def document(blade: Blade) -> dict[str, Any]:
    """The blade with its format's name and version."""
    return {"format": FORMAT, "version": VERSION, **asdict(blade), "holes": [asdict(hole) for hole in blade.holes]}


def dumps(blade: Blade) -> str:
    """The file's text."""
    return json.dumps(document(blade), ensure_ascii=False, indent=2, allow_nan=False) + "\n"


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
    if not isinstance(holes, list) or [hole.get("key") if isinstance(hole, dict) else None for hole in holes] != list(SNAPS):
        raise Refused("holes", str(holes)[:40], f"a list of two holes, {' and '.join(SNAPS)}")
    plain = {name: value for name, value in found.items() if name not in ("format", "version", "holes")}
    made = tuple(SnapHole(**_checked(hole, SnapHole)) for hole in holes)
    return Blade(**_checked(plain, Blade, ("holes",)), holes=made)


def _checked(row: dict[str, Any], of: type, besides: tuple[str, ...] = ()) -> dict[str, Any]:
    """The row if it has just the fields of a class, texts as texts and numbers finite."""
    wanted = [name for name in of.__dataclass_fields__ if name not in besides]  # type: ignore[attr-defined]
    require(sorted(row) == sorted(wanted), "fields", ", ".join(sorted(set(row) ^ set(wanted))), f"a blade's fields are {', '.join(wanted)}")
    for name in wanted:
        if name in TEXTS:
            require(isinstance(row[name], str) and len(row[name]) <= 120, name, str(row[name])[:40], "a short text is needed")
        else:
            finite_between(name, row[name], -1e4, 1e4)
    return row
