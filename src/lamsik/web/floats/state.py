"""What the float's page shows of one document: built here, bound by static/js/shared/bind.js."""

from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any
from urllib.parse import quote

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.floats.design import Float, own_mass_g
from lamsik.core.floats.inverse import check_foot, sensitivity
from lamsik.core.floats.learning import FamilyFit
from lamsik.core.floats.rating import (
    MOST_RESPONSE_MM,
    Rating,
    changes,
    curve,
    loading_g,
    ratings,
    response_mm,
    sd_g,
)
from lamsik.core.floats.shotting import ShotTable, Shotting, pull_to, shotting, telltale_lift, with_tip
from lamsik.core.floats.standing import Standing, standing
from lamsik.core.paints.layers import Layer
from lamsik.core.quantities import give_or_take, said, sure
from lamsik.core.water import Water
from lamsik.documents.floats.document import layers_of, tips, to_float
from lamsik.documents.floats.edits import BY_HAND
from lamsik.documents.rows import Document
from lamsik.drawings.floats import FloatSight, standing_picture
from lamsik.web.floats.view import (
    CapacityEffectRow,
    FloatPanel,
    FloatView,
    MarkRow,
    PartRow,
    RatingRow,
    RowsPanel,
    ShottingPanel,
    StandingPanel,
    TipRow,
    TipSide,
)
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, edit, plain
from lamsik.words import refusals
from lamsik.words.tell import tell

WORDS = {"stands": "stands by itself", "half-lies": "half lies", "lies": "lies flat", "sinks": "sinks"}


@dataclass(frozen=True)
class FloatShop:
    """What a float is looked at with: shot tables by every name they ever had, waters, dowels in stock [mm],
    the family's fit.
    """

    tables: dict[str, ShotTable]
    waters: tuple[Water, ...]
    dowels_mm: tuple[float, ...] = ()
    fit: FamilyFit | None = None


@dataclass(frozen=True)
class _Seen:
    """A float with what is computed of it once: its pull to the wanted mark [g], its shots, how it stands."""

    design: Float
    document: Document
    pull_g: float
    shots: Shotting | None
    alone: Standing | None


def view(document: Document, shop: FloatShop, settled: bool, pulled: str = "") -> dict[str, Any]:
    """The computed part of the state."""
    design = to_float(document)
    pull = pull_to(design)
    shots, alone = _shots(design, document, shop, pull), standing(design) if settled else None
    seen = _Seen(design, document, pull, shots, alone)
    return plain(
        FloatView(
            _head(seen, shop),
            _float(seen, shop, pulled),
            _shotting(seen, shop),
            _rows(document),
            _settled(seen, shop) if settled else None,
        )
    )


def _head(seen: _Seen, shop: FloatShop) -> Head:
    design, document = seen.design, seen.document
    return Head(
        fields=fields({**document, "shots": _shots_named(document, shop)}),
        settled=seen.alone is not None,
        near=None,
        sentence=carries(design, seen.pull_g),
        selected={
            "kind": design.kind,
            "wanted_mark": design.wanted_mark,
            "water": design.water.name,
            "shots": _shots_named(document, shop),
            "telltale": document.get("telltale", ""),
            "source": _source(document),
            "scheme": document["scheme"] or BY_HAND,
        },
    )


def _shots_named(document: Document, shop: FloatShop) -> str:
    """What its shot table is called now; as the float names it where the shop has none of that name."""
    name = str(document.get("shots", ""))
    return shop.tables[name].name if name in shop.tables else name


def _source(document: Document) -> str:
    return str(document.get("source", {}).get("kind", "own"))


def _float(seen: _Seen, shop: FloatShop, pulled: str) -> FloatPanel:
    design = seen.design
    try:
        loads, heights = curve(design)
    except Refused:
        loads, heights = np.zeros(0), np.zeros(0)
    height = design.mark(design.wanted_mark).height_mm if seen.pull_g >= 0 else design.top_mm
    return FloatPanel(
        picture=standing_picture(
            design, FloatSight(height, seen.shots, seen.alone, loads, heights, pulled, _layers(seen))
        ),
        ratings=[_rating(rating, shop.fit) for rating in ratings(design)],
        known=f"Each is known to {give_or_take('mass', sd_g(design), 2.0)} until it is weighed.",
        facts=float_facts(design),
        trouble=_trouble(design) or _unknown(seen.document, shop),
        not_for_sale=_source(seen.document) == "not_for_sale",
        pulled=pulled,
        painted=_scheme(seen.document),
        painted_at=f"/paints/coded/{quote(seen.document['scheme'], '')}/{seen.document['scheme_version']}",
        paint_anew=edit("scheme", code=seen.document["scheme"]),
    )


def _layers(seen: _Seen) -> tuple[Layer, ...]:
    """The paint it is seen in; while a handle moves its parts are drawn plain."""
    return layers_of(seen.document) if seen.alone is not None else ()


def _scheme(document: Document) -> str:
    """The scheme it is painted by, as it was."""
    number = document["scheme_version"]
    return f"{document['scheme']}, version {number}" if number else str(document["scheme"])


def _shotting(seen: _Seen, shop: FloatShop) -> ShottingPanel:
    shots = seen.shots
    if not shots:
        return ShottingPanel("", _why_no_shots(seen.design, seen.document, shop, seen.pull_g))
    return ShottingPanel(
        f"{shots.words}: {said(shots.pull_g, 'mass')} of pull, {said(shots.mass_g, 'mass')} in the box", ""
    )


def _rows(document: Document) -> RowsPanel:
    return RowsPanel(
        [_part(row) for row in document["parts"]],
        [_mark(row) for row in document["marks"]],
        [_tip_row(row) for row in document.get("tips", [])],
    )


def table_of(document: Document, shop: FloatShop) -> ShotTable:
    """The document's shot table, the shop's first where it is gone."""
    return shop.tables.get(str(document.get("shots", "")), next(iter(shop.tables.values())))


def _unknown(document: Document, shop: FloatShop) -> str:
    """A float from elsewhere may name shots that this shop does not have."""
    name, table = str(document.get("shots", "")), table_of(document, shop)
    if name and name not in shop.tables:
        return (
            f"There is no shot table {name} in this shop: {table.name} is used. Bring it in, or choose"
            " another."
        )
    last = str(document.get("telltale", ""))
    return (
        f"There is no {last} in {table.name}: it is shotted without a tell-tale. Choose one."
        if last and not _telltale(document, table)
        else ""
    )


def _telltale(document: Document, table: ShotTable) -> str:
    name = str(document.get("telltale", ""))
    return name if any(shot.name == name for shot in table.shots) else ""


def _shots(design: Float, document: Document, shop: FloatShop, pull: float) -> Shotting | None:
    table = table_of(document, shop)
    try:
        return shotting(round(pull, 3), table, design.water, _telltale(document, table))
    except Refused:
        return None


def _why_no_shots(design: Float, document: Document, shop: FloatShop, pull: float) -> str:
    table = table_of(document, shop)
    try:
        shotting(round(pull, 3), table, design.water, _telltale(document, table))
    except Refused as refused:
        return f"No shotting: {refusals.allowed(refused)}."
    return ""


def carries(design: Float, pull: float) -> str:
    """What it carries on the line to which mark with which tip."""
    mark = design.mark(design.wanted_mark)
    tip = next((part.name.split(",")[0] for part in design.parts if part.kind in ("tip", "antenna")), "")
    if pull < 0:
        return (
            f"It lies {said(-pull, 'mass')} too deep by itself: the {mark.name} is under water before"
            " any shot is on."
        )
    answers = response_mm(design, mark.height_mm)
    moves = (
        f"; {said(answers, 'length', 0)} of tip for {said(0.1, 'mass', 1)}"
        if answers < MOST_RESPONSE_MM
        else ""
    )
    return (
        f"Carries {said(pull, 'mass')} on the line to the {mark.name}{f' with its {tip}' if tip else ''} in"
        f" {design.water.describe()}{moves}."
    )


def _rating(rating: Rating, fit: FamilyFit | None) -> RatingRow:
    learned = said(fit.predict(rating.line_g), "mass") if fit and fit.count else ""
    response = said(rating.response_mm, "length") if rating.response_mm < MOST_RESPONSE_MM else "–"
    return RatingRow(
        key=rating.mark,
        mark=rating.mark,
        line=sure(rating.line_g, "mass", rating.sd_g),
        total=sure(rating.total_g, "mass", rating.sd_g),
        response=response,
        learned=learned,
    )


def float_facts(design: Float) -> list[Fact]:
    """The figures beside its drawing."""
    mass, loading = own_mass_g(design), loading_g(design)
    pull = pull_to(design)
    share = loading / (loading + pull) if loading > 0 and loading + pull > 0 else 0.0
    rows = [
        (
            "mass",
            "Its own mass",
            said(mass, "mass"),
            "All parts by volume and density, paint and varnish; a weighed part counts as weighed.",
        )
    ]
    if loading > 0:
        rows.append(
            (
                "loading",
                "Own loading",
                f"{said(loading, 'mass')}, {said(100 * share, 'percent', 0)}",
                "What its loading uses of all it could carry.",
            )
        )
    rows.append(("length", "Whole length", said(design.top_mm - design.foot_mm, "length", 0), "Foot to tip."))
    return [Fact(*row, estimate=True) for row in rows]


def _trouble(design: Float) -> str:
    try:
        check_foot(design)
    except Refused as refused:
        return f"The stem's bore: {refusals.allowed(refused)}." if refused.field == "bore" else ""
    return ""


def _settled(seen: _Seen, shop: FloatShop) -> StandingPanel:
    design, pull, alone = seen.design, seen.pull_g, seen.alone
    loaded = standing(design, pull) if pull > 0 else None
    stands = f"Without shot it {WORDS[alone.word]}" if alone else ""
    if loaded:
        stands += (
            f"; shotted it {'stands' if loaded.word == 'stands' else WORDS[loaded.word]}, metacentre"
            f" {said(loaded.gm_mm, 'length', 0)} over G"
        )
    effects = [(tell(change.name), change.effect_g) for change in changes(design, shop.waters)]
    with suppress(Refused):
        effects += [(tell(effect.name), effect.effect_g) for effect in sensitivity(design, shop.dowels_mm)]
    return StandingPanel(
        stands=f"{stands}.",
        lift=_lift(seen, shop),
        tip_rows=_tip_rows(design, seen.document),
        effects=[CapacityEffectRow(name, name, said(effect, "mass", sign=True)) for name, effect in effects],
        learned=_learned(shop.fit),
    )


def _lift(seen: _Seen, shop: FloatShop) -> str:
    design, pull, shots = seen.design, seen.pull_g, seen.shots
    if not shots:
        return ""
    chosen = _telltale(seen.document, table_of(seen.document, shop))
    last = next((shot for shot, _ in shots.shots if shot.name == chosen), shots.shots[-1][0])
    try:
        lift = telltale_lift(design, pull, last)
    except Refused as refused:
        return f"Tell-tale {last.name}: {refusals.allowed(refused)}."
    after = "stays upright" if lift.after.word == "stands" else f"then {WORDS[lift.after.word]}"
    if lift.beyond:
        return (
            f"Picking up the {last.name} lifts it out of its antenna: the"
            f" {said(lift.shown_mm, 'length', 0)} there are"
            f" and onto the body; it {after}."
        )
    return (
        f"Picking up the {last.name} lifts it"
        f" {said(lift.rise_mm, 'length', 0 if lift.rise_mm >= 10 else 1)}; it"
        f" {after}."
    )


def _tip_rows(design: Float, document: Document) -> list[TipSide]:
    """The same float with every tip of its box."""
    rows = []
    for tip in tips(document):
        other = with_tip(design, tip)
        pull = pull_to(other)
        mark = other.mark(other.wanted_mark)
        answers = response_mm(other, mark.height_mm)
        word = standing(other, pull).word if pull > 0 else "sinks"
        rows.append(
            TipSide(
                key=tip.key,
                tip=tip.name,
                line=said(pull, "mass"),
                response=said(answers, "length") if answers < MOST_RESPONSE_MM else "–",
                stands=WORDS[word].replace(" by itself", ""),
            )
        )
    return rows


def _learned(fit: FamilyFit | None) -> str:
    if fit is None or not fit.count:
        return (
            "No finished float of this family was weighed yet: weigh one on the scale, pulled down to its"
            " mark."
        )
    shift, spread = fit.intercept_g.value, fit.intercept_g.spread
    known = f", {give_or_take('mass', spread, 2.0)}" if spread is not None else ""
    return (
        f"From {fit.count} finished {'float' if fit.count == 1 else 'floats'}: measured ="
        f" {said(shift, 'mass', sign=True)} +"
        f" {said(fit.slope.value, 'number', 3)} × computed{known}.".replace("-", "−")
    )


def _part(row: Document) -> PartRow:
    path = f"parts.{row['key']}"
    return PartRow(
        key=row["key"],
        length=f"{path}.length_mm",
        diameter=f"{path}.diameter_mm",
        foot=f"{path}.foot_mm",
        bore=f"{path}.bore_mm",
        wall=f"{path}.wall_mm",
        bore_says=_bore_says(row),
        density=f"{path}.density_g_cm3",
        mass=f"{path}.mass_g",
        form=f"{path}.form",
        title=f"{row['name']} ({row['kind']})",
        is_open=row["bore_mm"] > 0,
        sealed=f"{path}.sealed",
        inside=f"{path}.inside",
        is_sealed=row["sealed"],
        is_inside=row["inside"],
        pull_says=f"Pull the points of {row['name']}",
        remove=edit("remove", group="parts", key=row["key"]),
        remove_says=f"Take off {row['name']}",
    )


def _bore_says(row: Document) -> str:
    """How deep a bore is drilled from the top."""
    wall = float(row.get("wall_mm") or 0.0)
    return (
        f"Drilled {said(row['length_mm'] - wall, 'length')} deep from the top."
        if wall
        else "Drilled through, from both ends."
    )


def _mark(row: Document) -> MarkRow:
    path = f"marks.{row['key']}"
    return MarkRow(
        key=row["key"],
        name=f"{path}.name",
        height=f"{path}.height_mm",
        says=f"Height of {row['name']}",
        name_says=f"Name of mark {row['name']}",
        remove=edit("remove", group="marks", key=row["key"]),
        remove_says=f"Take away the mark {row['name']}",
    )


def _tip_row(row: Document) -> TipRow:
    path = f"tips.{row['key']}"
    return TipRow(
        key=row["key"],
        name=f"{path}.name",
        length=f"{path}.length_mm",
        diameter=f"{path}.diameter_mm",
        density=f"{path}.density_g_cm3",
        title=str(row["name"]),
        remove=edit("remove", group="tips", key=row["key"]),
        remove_says=f"Take {row['name']} out of the box",
    )


def bare(design: Float) -> Float:
    """The float before paint and varnish."""
    return replace(design, paint_g=0.0, varnish_g=0.0)
