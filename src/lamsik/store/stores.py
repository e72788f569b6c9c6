"""Stock rows as core values: hardware, lips, slugs, drills, waters, schemes, settings."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import asdict
from datetime import date, time
from typing import Any, TypeVar

from sqlalchemy import event
from sqlalchemy.orm import Session as AnySession
from sqlmodel import Session, SQLModel, col, select

from lamsik.core.paints.layers import Layer
from lamsik.core.quantities import METRIC
from lamsik.core.route.workdays import Workdays
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.hardware import Item, Lip
from lamsik.core.shapes.stock import STICK_MM
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.evaluate import Rules
from lamsik.core.tank.motion import Bands
from lamsik.core.trade.figures import usual
from lamsik.core.water import Water
from lamsik.documents.schemes.document import layers_of
from lamsik.store import documents
from lamsik.store.tables import Document, Drill, Hardware, Setting, ShopWater, SlugStock

Known = TypeVar("Known")

DEFAULTS: dict[str, dict[str, Any]] = {
    "shop": {"name": "My workshop", "currency": "EUR"},
    "bench": usual("bench"),
    "bands": usual("bands"),
    "units": asdict(METRIC),
    "clearances": {},
    "codes": {"hardware": 0},
    "backups": {"daily": True, "keep": 7},
    "saw": {**usual("saw"), "stick_mm": [*STICK_MM], "paper": "A4"},
    "scale_hosts": {"addresses": []},
    "reader": {"url": "", "page": ""},
    "scale": {"url": "", "baud": 9600, "unit": "", "step_g": 0.01, "page": "", "instrument": None},
    "days": {"days": [0, 1, 2, 3, 4], "begins": "09:00", "ends": "17:00", "closed": [], "after_hours": False},
    "bricks": {
        "long_mm": 40.0,
        "wide_mm": 20.0,
        "high_mm": 12.0,
        "have": 0,
        "strip_high_mm": 0.0,
        "strip_long_mm": 0.0,
    },
    "mixing": usual("mixing"),
    "casting": usual("casting"),
    "blades": usual("blades"),
    "minutes": {"own": {}},
    "heat": {**usual("heat"), "limits": {}},
    "cautions": {"read_on": {}},
    "faces": {"learned": {}},
    "letters": {"own": {}},
    "mail": {
        "host": "",
        "port": 587,
        "security": "starttls",
        "user": "",
        "sender": "",
        "maildir": "",
        "page": "",
    },
    "grid": {"left_out": []},
    "not_sold": {"schemes": {}, "stencils": {}},
    "ready": {"hours": 72, "shipping": []},
    "costs": {
        "rate_minor": 2400,
        "fee_percent": 0.0,
        "fee_minor": 0,
        "packing_minor": 0,
        "unfinished": 40,
    },
    "taxes": {"rules": []},
    "shipping": {"rates": []},
    "dowels": {"mm": [6.0, 8.0, 10.0, 12.0, 12.7, 14.0, 15.9, 16.0, 18.0, 20.0]},
}
"""Settings of a new shop."""


SET = "settings"
EACH = select(Setting.key, Setting.value)
"""Made once: a question takes as long to put as these are to read."""


def setting(session: Session, key: str) -> dict[str, Any]:
    """A setting, its defaults filled in."""
    return {**DEFAULTS[key], **_held(session).get(key, {})}


def workdays(session: Session) -> Workdays:
    """The shop's days and hours."""
    kept = setting(session, "days")
    return Workdays(
        tuple(kept["days"]),
        time.fromisoformat(kept["begins"]),
        time.fromisoformat(kept["ends"]),
        tuple(date.fromisoformat(day) for day in kept["closed"]),
        bool(kept["after_hours"]),
    )


@event.listens_for(AnySession, "after_soft_rollback")
def _unread(session: AnySession, _gone: Any) -> None:
    session.info.pop(SET, None)


def _held(session: Session) -> dict[str, dict[str, Any]]:
    """What the shop has set, read once for a session: a request asks for many of them."""
    if SET not in session.info:
        session.info[SET] = dict(session.exec(EACH).all())
    held: dict[str, dict[str, Any]] = session.info[SET]
    return held


def put_setting(session: Session, key: str, value: dict[str, Any]) -> None:
    """Keep a setting."""
    row = session.get(Setting, key) or Setting(key=key, value={})
    row.value = {**row.value, **value}
    session.add(row)
    _held(session)[key] = row.value


def rules(session: Session) -> Rules:
    """The shop's thresholds."""
    bands, limits = setting(session, "bands"), setting(session, "bench")
    faces = tuple(
        (construction, row["mm"])
        for construction, row in sorted(setting(session, "faces")["learned"].items())
    )
    return Rules(
        Bands(bands["suspends_cm_s"], bands["slow_cm_s"]),
        bands["drag"],
        limits["wall_mm"],
        limits["slug_step_g"],
        bands["steady_hz"],
        faces,
    )


def bench(session: Session) -> Bench:
    """What the shop can build ballast with."""
    limits = setting(session, "bench")
    slugs = tuple(slug_of(row) for row in session.exec(select(SlugStock).order_by(SlugStock.code)).all())
    drills = tuple(session.exec(select(Drill.diameter_mm).order_by(col(Drill.diameter_mm))).all())
    return Bench(slugs, drills, limits["wall_mm"], limits["cover_mm"], limits["slug_step_g"])


def slug_of(row: SlugStock) -> Slug:
    """The core value of a slug row."""
    return Slug(row.name, row.form, row.metal, row.density_g_cm3, row.diameter_mm)


def item_of(row: Hardware) -> Item:
    """The core value of a catalogue part that is not a lip."""
    return Item(
        row.code,
        row.name,
        row.kind,
        row.mass_g,
        row.density_g_cm3,
        row.outside_share,
        row.reach_mm,
        row.weighed,
        row.material,
        row.wire_mm,
        row.shank_mm,
        row.bore_mm,
    )


def lip_of(row: Hardware) -> Lip:
    """The core value of a lip plate, standing at the nose."""
    return Lip(
        width_mm=row.width_mm or 10.0,
        length_mm=row.length_mm or 10.0,
        thickness_mm=row.thickness_mm or 1.5,
        density_g_cm3=row.density_g_cm3,
        angle_deg=row.angle_deg or 35.0,
        x_mm=6.0,
        mass_g=row.mass_g if row.weighed else None,
        code=row.code,
        name=row.name,
        outline=row.outline,
    )


def water_of(row: ShopWater) -> Water:
    """The core value of a named water."""
    return Water(row.name, row.temperature_c, row.salinity_psu, row.measured_g_cm3)


def hardware(session: Session) -> list[Hardware]:
    """All catalogue parts, by kind and name."""
    return list(session.exec(select(Hardware).order_by(Hardware.kind, Hardware.code)).all())


def free_code(session: Session) -> str:
    """A code for a new part that no part has or had: designs keep what they were made with by its code."""
    numbers = [
        int(row.code[1:]) for row in hardware(session) if row.code[:1] == "h" and row.code[1:].isdigit()
    ]
    known = int(setting(session, "codes")["hardware"])
    number = max([known, *numbers]) + 1
    put_setting(session, "codes", {"hardware": number})
    return f"h{number:03d}"


def take_out(session: Session, row: SQLModel) -> None:
    """Take a row out of the stock; the log can put it back. Raises IntegrityError where something stands on
    it.
    """
    with session.begin_nested():
        session.delete(row)


def waters(session: Session) -> list[ShopWater]:
    """The shop's waters."""
    return list(session.exec(select(ShopWater).order_by(col(ShopWater.id))).all())


def catalogue(session: Session) -> Catalogue:
    """Everything a design can be made of."""
    parts = hardware(session)
    return Catalogue(
        items={row.code: item_of(row) for row in parts if row.kind != "lip"},
        lips={row.code: lip_of(row) for row in parts if row.kind == "lip"},
        slugs={slug.name: slug for slug in bench(session).slugs},
        waters={row.name: water_of(row) for row in waters(session)},
        schemes=schemes(session),
        versions=scheme_versions(session),
    )


def schemes(session: Session) -> Mapping[str, tuple[Layer, ...]]:
    """The layers of all schemes by code."""
    return OfSchemes(session, lambda row: layers_of(documents.content(session, row)))


def scheme_versions(session: Session) -> Mapping[str, int]:
    """Which version of each scheme is the last, by code."""
    return OfSchemes(session, lambda row: row.current)


class OfSchemes(Mapping[str, Known]):
    """Something of all schemes by code, each read when it is asked for: a shop may have many, a body has
    one.
    """

    def __init__(self, session: Session, of: Callable[[Document], Known]) -> None:
        self._session, self._of = session, of

    def __getitem__(self, code: str) -> Known:
        row = documents.coded(self._session, "scheme", code)
        if row is None:
            raise KeyError(code)
        return self._of(row)

    def __iter__(self) -> Iterator[str]:
        return iter([row.code for row in documents.listed(self._session, "scheme")])

    def __len__(self) -> int:
        return len(list(iter(self)))
