"""What the Floats bench takes from the shop: tables, waters, dowels, and what its finished floats taught."""

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from sqlmodel import col

from lamsik.core.errors import Refused
from lamsik.core.floats.design import BARE, PAINTED, VARNISHED, Float
from lamsik.core.floats.learning import fit
from lamsik.core.floats.rating import capacity_g
from lamsik.core.water import Water
from lamsik.core.weighing.inwater import converted_lift
from lamsik.documents.floats.document import to_float
from lamsik.store import documents, floats, stores
from lamsik.store.tables import Document
from lamsik.store.weighed import Weighed
from lamsik.web.floats.state import FloatShop
from lamsik.web.shared.db import db
from lamsik.web.shared.waters import shop_waters

STAGE_ORDER = (BARE, PAINTED, VARNISHED)


@dataclass(frozen=True)
class Finished:
    """One finished float: its row, the mark, what it computes to in the water and stage it was weighed in,
    what it measured [g].
    """

    row: Weighed
    design: Float
    mark: str
    computed_g: float
    measured_g: float


def last_stages(rows: Sequence[Finished]) -> list[Finished]:
    """Of each float only how it was weighed last: the furthest stage, and of that the newest."""
    by_float: dict[str, Finished] = {}
    for one in sorted(
        rows,
        key=lambda one: (
            STAGE_ORDER.index(one.row.stage) if one.row.stage in STAGE_ORDER else len(STAGE_ORDER),
            one.row.id,
        ),
    ):
        by_float[one.row.name.strip().casefold()] = one
    return sorted(by_float.values(), key=lambda one: one.row.id)


def measured_in(one: Finished, water: Water) -> float:
    """What a finished float carries in a water [g]. Raises `Refused` for another water than it was weighed
    in without its mass in air.
    """
    return (
        converted_lift(one.measured_g, one.row.air_g, one.row.water, water)
        if water != one.row.water
        else one.measured_g
    )


def shop_of(family: str = "") -> FloatShop:
    """The shop as a float is looked at; with the fit of a family."""
    dowels = tuple(stores.setting(db(), "dowels")["mm"])
    learned = fit([(row.computed_g, row.measured_g) for row in finished(family)]) if family else None
    tables = floats.tables(db(), former=True)
    return FloatShop(tables, tuple(shop_waters()), dowels, learned)


def finished(family: str) -> list[Finished]:
    """Every weighed float of a family with what it computes to, by its own design."""
    weighings = floats.finished(db())
    named = col(Document.id).in_({row.float_id for row in weighings})
    rows = db().exec(documents.matching("float").where(named)).all()
    designs = {key: to_float(content) for key, content in documents.contents(db(), rows).items()}
    marked = []
    for row in weighings:
        design = designs.get(row.float_id or 0)
        known = {mark.name for mark in design.marks} if design is not None else set()
        if design is None or design.family != family or row.marks[-1][0] not in known:
            continue  # a row whose marks the design does not know teaches nothing
        with suppress(Refused):
            marked.append(_finished(row, design))
    return marked


def _finished(row: Weighed, design: Float) -> Finished:
    name, reading = row.marks[-1]
    staged = replace(design, water=row.water)
    if row.stage == BARE:
        staged = replace(staged, paint_g=0.0, varnish_g=0.0)
    elif row.stage == PAINTED:
        staged = replace(staged, varnish_g=0.0)
    return Finished(
        row, design, name, capacity_g(staged, staged.mark(name).height_mm), (row.sinker_g or 0.0) - reading
    )
