"""A mix asked for on a page or by another bench: the typed texts as a plan, with everything that is to be
said about it.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from lamsik.core.castings.foam import at_warmth, density_of_ratio
from lamsik.core.errors import Refused, one_of
from lamsik.core.findings import Finding
from lamsik.core.mixes.amount import MixJob, WeighedMix, least_g, poured_g_cm3, ratio_error, weighed_out
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.fillers import FILLERS, Filled, filled, pigment_g
from lamsik.core.mixes.layers import USUAL, PouredLayer, layered
from lamsik.core.mixes.product import FOAM, Product, liquid_g_cm3
from lamsik.core.mixes.tubs import choose, remarks
from lamsik.core.quantities import READINGS, plainly, read_measure, read_planned, said
from lamsik.store import mixes, stores
from lamsik.store.tables import StockLot
from lamsik.web.shared.db import db
from lamsik.words import refusals


@dataclass(frozen=True)
class Row:
    """A line to weigh: what, how much [g], decimals, the volume [ml], the tub to take it from and what is
    to be said of it, why not.
    """

    part: str
    grams: float
    ml: float
    tub: StockLot | None = None
    remarks: tuple[Finding, ...] = ()
    problem: str = ""


@dataclass(frozen=True)
class MixPlan:
    """A mix as planned: job, portions, filler, pigment, layers, clocks at the temperature, all remarks."""

    product_id: int
    product: Product
    job: MixJob
    total_g: float
    step_g: float
    at_c: float
    weighed: WeighedMix
    rows: tuple[Row, ...]
    density_g_cm3: float
    filled: Filled | None = None
    filler: str = ""
    scoops: float = 0.0
    pigment_g: float = 0.0
    layers: tuple[PouredLayer, ...] = ()
    pot_min: float = 0.0
    demould_h: float = 0.0
    cure_h: float = 0.0
    warnings: tuple[str, ...] = ()
    learned_from: int = 0

    @property
    def may_weigh(self) -> bool:
        """Whether the tubs have what it takes."""
        return not any(row.problem for row in self.rows)

    def kept(self, layer: PouredLayer | None = None) -> dict[str, Any]:
        """What a batch keeps of it; of one layer, its own portions and its share of all else."""
        rows = [{"part": row.part, "grams": row.grams} for row in self.rows]
        if layer is not None:
            share = layer.weighed.total_g / self.total_g
            portions = [
                {"part": portion.name, "grams": portion.scale_g} for portion in layer.weighed.portions
            ]
            whole = self.kept()
            extras = [{**extra, "grams": round(extra["grams"] * share, 3)} for extra in whole["extras"]]
            volumes = {name: whole[name] * share for name in ("net_ml", "sprue_ml", "filled_ml")}
            gel = at_temperature(self.product.gel_min, self.product.reference_c, self.at_c)
            return {
                **whole,
                **volumes,
                "total_g": layer.weighed.total_g,
                "rows": portions,
                "extras": extras,
                "gel_min": gel,
            }
        extras = [{"part": self.filler, "grams": round(self.filled.filler_g, 3)}] if self.filled else []
        extras += [{"part": "pigment", "grams": round(self.pigment_g, 3)}] if self.pigment_g else []
        return {
            "net_ml": self.job.net_ml,
            "sprue_ml": self.job.sprue_ml,
            "loss": self.job.loss,
            "filled_ml": self.job.net_ml + self.job.sprue_ml,
            "total_g": self.total_g,
            "density": self.density_g_cm3,
            "step_g": self.step_g,
            "rows": rows,
            "extras": extras,
        }


@dataclass(frozen=True)
class BatchAsked:
    """What a mix form says, as typed."""

    texts: Mapping[str, str] = field(default_factory=dict)

    def get(self, name: str) -> str:
        """A text, stripped."""
        return str(self.texts.get(name, "")).strip()

    def value(
        self, name: str, quantity: str, label: str, unit: str, default: float | None = None
    ) -> float | None:
        """A measure, or the default where nothing is typed; a temperature has no unit of its own."""
        text = self.get(name)
        read = read_measure if name == "step" else read_planned
        return read(text, quantity, name if quantity in READINGS else label, unit) if text else default


def _of_what(product: Product, asked: BatchAsked, job: MixJob, at_c: float) -> tuple[float, Filled | None]:
    """The density that is poured [g/cm³], and the filler in it where it is filled."""
    target, name = asked.value("density", "density", "density", "g/cm³"), asked.get("filler")
    if product.kind == FOAM:
        density = _foam_density(product, asked, target, at_c)
    elif asked.get("ratio"):
        raise Refused("ratio", asked.get("ratio"), "only a foam expands")
    else:
        density = target if name and target else poured_g_cm3(product, target)
    if not name:
        return density, None
    one_of("filler", name, FILLERS)
    if target is None:
        raise Refused("density", "", "say which density the filled casting shall have")
    return density, filled(product, job.total_ml, target, FILLERS[name])


def plan(product_id: int, product: Product, asked: BatchAsked, now: datetime) -> MixPlan:
    """The mix a form asks for.

    Raises:
        Refused: naming the field: nothing to fill, a density out of reach, an amount that rounds to nothing.
    """
    room = stores.setting(db(), "mixing")
    loss = mixes.loss_of(db(), product_id)
    typed_loss = asked.value("loss", "percent", "loss", "%")
    job = MixJob(
        asked.value("net", "volume", "net volume", "ml", 0.0) or 0.0,
        asked.value("sprue", "volume", "sprue", "ml", 0.0) or 0.0,
        loss.value if typed_loss is None else typed_loss / 100.0,
    )
    at_c = float(asked.value("at", "temperature", "temperature", "", float(room["room_c"])) or 0.0)
    step = float(asked.value("step", "mass", "scale step", "g", float(room["step_g"])) or 0.0)
    density, mixed = _of_what(product, asked, job, at_c)
    filler_name = asked.get("filler")
    total = mixed.resin_g if mixed else job.total_ml * density
    out = weighed_out(product, total, step)
    percent = asked.value("pigment", "percent", "pigment", "%")
    drops = asked.value("drops", "number", "drops", "")
    colour = pigment_g(total, percent, drops) if percent is not None or drops is not None else 0.0
    layers = layered(product, total, USUAL, step, at_c) if asked.get("layers") else ()
    tubs, rows = mixes.tubs(db(), product_id), []
    for portion in out.portions:
        rows.append(_row(product, portion.name, portion.scale_g, portion.ml, tubs, now))
    pot, demould, cure = (
        at_temperature(t, product.reference_c, at_c)
        for t in (product.pot_life_min, product.demould_h, product.cure_h)
    )
    return MixPlan(
        product_id,
        product,
        job,
        out.total_g,
        step,
        at_c,
        out,
        tuple(rows),
        density,
        mixed,
        filler_name,
        mixed.scoops(FILLERS[filler_name], float(room["scoop_ml"])) if mixed else 0.0,
        colour,
        layers,
        pot,
        demould,
        cure,
        _warnings(product, out, total, step, mixed),
        loss.n,
    )


def _foam_density(product: Product, asked: BatchAsked, wanted: float | None, at_c: float) -> float:
    """What a foam becomes [g/cm³]: typed, by its expansion, or as it rises freely at this temperature;
    never its liquid's.
    """
    if asked.get("filler"):
        raise Refused(
            "filler", asked.get("filler"), "a foam is planned by its own density: leave the filler out"
        )
    ratio = asked.value("ratio", "number", "expansion", "")
    if ratio is not None:
        if wanted is not None:
            raise Refused("ratio", asked.get("ratio"), "give its density or its expansion, not both")
        wanted = density_of_ratio(ratio, liquid_g_cm3(product))
    tested, free = asked.value("free", "density", "free rise", "g/cm³"), product.free_rise_g_cm3
    return poured_g_cm3(
        product, wanted, tested or (None if free is None else at_warmth(free, product.reference_c, at_c))
    )


def _row(product: Product, part: str, grams: float, ml: float, tubs: Any, now: datetime) -> Row:
    try:
        chosen = choose([mixes.core_tub(tub) for tub in tubs], part, grams, product.open_days, now.date())
    except Refused as refused:
        return Row(part, grams, ml, problem=f"{part}: {refusals.allowed(refused)}.")
    row = next(tub for tub in tubs if str(tub.id) == chosen.key)
    return Row(part, grams, ml, row, remarks(chosen, product.open_days, product.stir_s, now))


def _warnings(
    product: Product, out: WeighedMix, total: float, step: float, mixed: Filled | None
) -> tuple[str, ...]:
    warned = []
    if not out.holds:
        warned.append(
            f"Rounding to {plainly(step, 'mass')} puts the ratio off by"
            f" {said(out.error_percent, 'percent')}, more than the"
            f" {plainly(product.tolerance_percent, 'percent')} it allows: use a finer scale"
        )
    elif len(product.parts) > 1 and total < least_g(product, step):
        warned.append(
            f"Below {said(least_g(product, step), 'mass', 0)} this scale's step alone can put the ratio"
            " off by more than"
            f" {plainly(product.tolerance_percent, 'percent')}"
        )
    if mixed and mixed.filling.stiff:
        warned.append(
            f"{said(100 * mixed.filling.volume_share, 'percent', 0)} filler by volume is hard to pour"
            " into thin parts (from"
            " about 42 %)"
        )
    return tuple(warned)


def error_percent(product: Product, grams: list[float]) -> float | None:
    """How far what is weighed is off the ratio [%]; None until every part is in."""
    return ratio_error(product, grams) if all(g > 0 for g in grams) else None
