"""What one piece of a design takes out of the stores, and at which step of its route."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import mass_g
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.spraying import STAYS_SHARE, cups
from lamsik.core.route.others import body_of, construction_of
from lamsik.core.route.steps import COAT
from lamsik.core.shapes.ballast_holes import BALLS
from lamsik.core.shapes.blades import Blade
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.solid import solid
from lamsik.core.stock.kinds import FINEST, GRAMS, MILLILITRES, MILLIMETRES, PIECES

BODY, FIT, RIG, PACK, BEND = "carve", "fit", "rig", "pack", "bend"
"""Steps by their key in a route."""
RIGGED = frozenset({"ring", "hook", "skirt", "hair", "soft_tail", "rotor"})
"""Kinds of part that go on last."""
SAWN_MM = 12.0
"""What a blank is longer than its body, for the jaws and the saw (a guess)."""
EYES_A_PIECE = 2
SET_ON = ("flat", "domed")
"""Kinds of eyes that come out of a bag."""
CALLED = "called"
"""What is known by its name alone is of this."""


@dataclass(frozen=True)
class TakenOut:
    """So much of something for one piece.

    Args:
        of: what it is of: `hardware`, `slug`, `paint`, or `called` where only its name is known.
        key: its code there, or its name.
        name: what the design calls it.
        amount: how much, in `unit`.
        step: the key of the step that takes it.
    """

    of: str
    key: str
    name: str
    amount: float
    unit: str
    step: str


def takes(design: Design, stays: Mapping[str, float] = STAYS_SHARE) -> tuple[TakenOut, ...]:
    """What one piece of a design takes, each thing once a step.

    Args:
        design: what is made.
        stays: what of a paint stays on the body, by how it goes on.
    """
    return _summed((*_body(design), *_parts(design), *_metal(design), *_coats(design, stays)))


def _summed(taken: Iterable[TakenOut]) -> tuple[TakenOut, ...]:
    """Each thing once a step."""
    summed: dict[tuple[str, str, str, str, str], float] = {}
    for one in taken:
        key = (one.of, one.key, one.name, one.unit, one.step)
        summed[key] = summed.get(key, 0.0) + one.amount
    return tuple(
        TakenOut(of, key, name, amount, unit, step)
        for (of, key, name, unit, step), amount in summed.items()
        if amount > FINEST
    )


LOOSE = frozenset({"bead", "adapter", "loading"})
"""Parts of a float that come as pieces; the others are cut off a length."""


def takes_float(design: Float) -> tuple[TakenOut, ...]:
    """What one float takes: its body off a dowel, or as much as it weighs where it is poured or printed; each
    stem, tip and tube off its length; beads and loads by the piece. They are known by their names.
    """
    body, is_turned = body_of(design), construction_of(design) == "wood"
    told = []
    for part in design.parts:
        name, step = part.name, BODY if part == body else FIT
        if part == body and not is_turned:
            told.append(TakenOut(CALLED, name, name, mass_g(part), GRAMS, step))
        elif part.kind in LOOSE:
            told.append(TakenOut(CALLED, name, name, 1.0, PIECES, step))
        else:
            of = name.rpartition(", ")[2]  # `stem, bamboo` is cut off bamboo
            told.append(TakenOut(CALLED, of, of, part.length_mm + SAWN_MM, MILLIMETRES, step))
    return _summed(told)


def takes_blade(blade: Blade) -> tuple[TakenOut, ...]:
    """What one blade takes: its length of strip, known by its metal."""
    return (TakenOut(CALLED, blade.metal, blade.metal, blade.flat_mm + SAWN_MM, MILLIMETRES, BEND),)


def _body(design: Design) -> Iterator[TakenOut]:
    host = design.host
    if host.construction == "wood":
        yield TakenOut(CALLED, host.name, host.name, design.body.length_mm + SAWN_MM, MILLIMETRES, BODY)
    else:
        grams = solid(design.body).volume_ml * host.density_g_cm3
        yield TakenOut(CALLED, host.name, host.name, grams, GRAMS, BODY)


def _parts(design: Design) -> Iterator[TakenOut]:
    for placed in design.hardware:
        step = RIG if placed.item.kind in RIGGED else FIT
        yield TakenOut("hardware", placed.item.code, placed.item.name, 1.0, PIECES, step)
    if design.lip is not None:
        yield TakenOut("hardware", design.lip.code, design.lip.name, 1.0, PIECES, FIT)


def _metal(design: Design) -> Iterator[TakenOut]:
    for hole in design.ballast:
        slug = hole.slug
        balls = slug.form == BALLS
        amount = float(slug.balls(hole.mass_g)) if balls else hole.mass_g
        yield TakenOut("slug", slug.name, slug.name, amount, PIECES if balls else GRAMS, FIT)
    for cavity in design.cavities:
        yield TakenOut("slug", cavity.slug.name, cavity.slug.name, float(cavity.count), PIECES, BODY)


def _coats(design: Design, stays: Mapping[str, float]) -> Iterator[TakenOut]:
    for cup in cups(design, stays):
        layer, step = cup.layer, f"{COAT}{cup.layer.key}"
        if layer.does == FITTED and layer.eye in SET_ON:
            yield TakenOut(CALLED, layer.name, layer.name, float(EYES_A_PIECE), PIECES, step)
        elif cup.wet_ml > 0:
            code, name = layer.paint.code, layer.paint.name or layer.name
            yield TakenOut("paint" if code else CALLED, code or name, name, cup.wet_ml, MILLILITRES, step)
