"""The twins' room: one shape in four materials, and a prototype against its target."""

from dataclasses import dataclass

from flask import Blueprint, render_template, request

from lamsik.core.quantities import said
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.twins import ITSELF, Sameness, Twin, fidelity, twins
from lamsik.drawings.svg import Node
from lamsik.drawings.tank import SURFACE, UNDER, scene
from lamsik.store import orders
from lamsik.web.shared.db import db, load_document
from lamsik.web.tank import others
from lamsik.web.tank.forms import FidelityForm
from lamsik.words.tell import tell

blueprint = Blueprint("tank_twins", __name__, url_prefix="/tank")


@dataclass(frozen=True)
class TwinColumn:
    """A material's column: the bait in water, its figures, what matches the original."""

    name: str
    picture: Node
    rows: tuple[tuple[str, str], ...]
    says: str
    match: tuple[tuple[str, str], ...]


@blueprint.get("/<int:key>/twins")
def show(key: int) -> str:
    """The same shape in four materials, and a prototype against its target."""
    row = load_document("body", key)
    outcome = others.outcome_of(row, settled=False)
    form = FidelityForm(request.args if request.args else None)
    columns = tuple(
        _twin(twin, number) for number, twin in enumerate(twins(outcome.design, rules=outcome.rules), 1)
    )
    proto_key = request.args.get("with", "")
    proto = others.other(proto_key, settled=False)
    same = _same(outcome, proto, form)
    return render_template(
        "tank/twins.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        columns=columns,
        others=others.choices(key, proto_key, proto),
        chosen=proto_key,
        form=form,
        proto=proto.name if proto else "",
        same=same,
        alike=bool(same) and all(r.within for r in same),
    )


def _same(target: Outcome, proto: others.Other | None, form: FidelityForm) -> tuple[Sameness, ...]:
    if proto is None or (request.args and not form.validate()):
        return ()
    return fidelity(
        target,
        proto.outcome,
        form.mass.amount or 2.0,
        form.net.amount or 0.1,
        form.place.amount or 0.5,
        form.roll.amount or 10.0,
    )


def _twin(twin: Twin, number: int) -> TwinColumn:
    plain = twin.plain
    rows = (
        ("Density", said(plain.design.host.density_g_cm3, "density", 2)),
        ("In air", said(plain.budget.mass_g, "mass", 1)),
        ("Net lift", said(plain.verdict.net_g, "mass", sign=True)),
        ("Behaviour", plain.verdict.behaviour),
        ("Pitch", said(plain.hanging.free.pitch_deg, "angle", 0, sign=True)),
        ("Roll", said(plain.roll.frequency_hz, "frequency")),
    )
    match: tuple[tuple[str, str], ...] = ()
    if twin.matched is not None and twin.needed_g_cm3 is not None and twin.says != ITSELF:
        hole = twin.matched.design.ballast[0] if twin.matched.design.ballast else None
        match = (
            ("Needs", said(twin.needed_g_cm3, "density")),
            (
                "Off the original",
                f"{said(twin.mass_off_g, 'mass', sign=True)}, G {said(twin.g_off_mm, 'length')}",
            ),
            ("Net lift then", said(twin.matched.verdict.net_g, "mass", sign=True)),
            *(
                (
                    (
                        "First slug",
                        f"{said(hole.x_mm, 'length')} from the nose, {said(hole.cover_mm, 'length')} deep",
                    ),
                )
                if hole
                else ()
            ),
        )
    return TwinColumn(
        twin.material.name,
        scene(plain, SURFACE if plain.surface else UNDER, handles=False, plain=f"twin-{number}"),
        rows,
        tell(twin.says),
        match,
    )
