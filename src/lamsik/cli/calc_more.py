"""`lamsik calc ballast | float | mould | mix | pair`: what the benches answer for a file, as JSON with
units in the names.
"""

from pathlib import Path
from typing import Any

from lamsik.core.castings.foam import at_warmth, density_of_ratio
from lamsik.core.errors import Refused, require
from lamsik.core.floats.design import gravity_mm, own_mass_g
from lamsik.core.floats.rating import loading_g, ratings
from lamsik.core.floats.standing import metacentric_mm, standing
from lamsik.core.materials import METALS
from lamsik.core.mixes.amount import MixJob, poured_g_cm3, weighed_out
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.fillers import filled
from lamsik.core.mixes.overpour import put_right
from lamsik.core.mixes.product import FOAM, Product, liquid_g_cm3
from lamsik.core.moulds.advice import look
from lamsik.core.moulds.funnels import feed_ml
from lamsik.core.moulds.layout import box, cavity_ml
from lamsik.core.moulds.silicone import clay_ml
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.tank.ballast import Answer, search, within
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.ballast_why import what_binds
from lamsik.core.weighing.pair import margins, turns_at
from lamsik.documents.body.document import to_design
from lamsik.documents.floats import document as float_document
from lamsik.documents.floats.edits import FLOAT
from lamsik.documents.moulds import document as mould_document
from lamsik.documents.moulds.edits import MOULD
from lamsik.formats import asked, document_file
from lamsik.formats.body_file import opened
from lamsik.store.starter import DRILLS, SLUGS
from lamsik.words.moulds import HALVES
from lamsik.words.tell import tell


def starter_bench() -> Bench:
    """The stock a new shop begins with."""
    return Bench(
        tuple(
            Slug(f"{metal} {form} {size:g} mm", form, metal, METALS[metal], size)
            for metal, form, size in SLUGS
        ),
        DRILLS,
    )


def calc_ballast(file: Path, stock: Path | None = None) -> dict[str, Any]:
    """Buildable ballast for the want in a body document, best first; and what binds where none is within
    the tolerances.
    """
    design = to_design(opened(file.read_bytes())[0])
    bench = asked.bench_of(asked.loads(stock.read_bytes(), "stock")) if stock else starter_bench()
    answers = search(design, bench)
    binds = None if any(within(answer) for answer in answers) else what_binds(design, bench)
    return {
        "format": "lamsik-ballast",
        "version": 1,
        "name": design.name,
        "answers": [_answer(answer) for answer in answers],
        "binds": (
            None
            if binds is None
            else {"what": binds.what, "says": tell(binds.says), "frees": tell(binds.frees) or None}
        ),
    }


def _answer(answer: Answer) -> dict[str, Any]:
    holes = [
        {
            "slug": hole.slug.name,
            "metal": hole.slug.metal,
            "x_mm": round(hole.x_mm, 2),
            "y_mm": y,
            "mass_g": round(hole.each_g, 4),
            "drill_mm": hole.drill_mm,
            "depth_mm": round(hole.depth_mm, 2),
        }
        for hole in answer.holes
        for y in hole.sides_mm
    ]
    return {
        "holes": holes,
        "pours": [
            {"name": p.name, "density_g_cm3": p.density_g_cm3, "from_mm": p.from_mm, "to_mm": p.to_mm}
            for p in answer.pours
        ],
        "cavities": [
            {"slug": c.slug.name, "count": c.count, "x_mm": c.x_mm, "up_mm": round(c.up_mm, 3)}
            for c in answer.cavities
        ],
        "mass_g": round(answer.mass_g, 4),
        "net_g": round(answer.net_g, 4),
        "net_error_g": round(answer.net_error_g, 4),
        "pitch_deg": round(answer.pitch_deg, 3),
        "pitch_error_deg": round(answer.pitch_error_deg, 3),
        "wall_mm": None if answer.wall_mm == float("inf") else round(answer.wall_mm, 3),
        "height_mm": round(answer.height_mm, 3),
        "best_at": list(answer.tags),
        "says": tell(answer.says),
    }


def calc_float(file: Path) -> dict[str, Any]:
    """What a float carries to each mark, how it stands by itself."""
    design = float_document.to_float(document_file.read(FLOAT, file.read_bytes()))
    alone = standing(design)
    return {
        "format": "lamsik-float-rating",
        "version": 1,
        "name": design.name,
        "water": design.water.describe(),
        "water_g_cm3": round(design.water.density_g_cm3, 6),
        "own_mass_g": round(own_mass_g(design), 4),
        "g_over_foot_mm": round(gravity_mm(design), 3),
        "gm_mm": round(metacentric_mm(design), 3),
        "loading_in_water_g": round(loading_g(design), 4),
        "stands": alone.word,
        "lean_deg": round(alone.lean_deg, 1),
        "marks": [
            {
                "mark": row.mark,
                "height_mm": round(row.height_mm, 2),
                "on_the_line_g": round(row.line_g, 4),
                "total_g": round(row.total_g, 4),
                "sd_g": round(row.sd_g, 4),
                "response_mm_per_0_1_g": (
                    None if row.response_mm == float("inf") else round(row.response_mm, 3)
                ),
            }
            for row in ratings(design)
        ],
    }


def calc_mould(file: Path) -> dict[str, Any]:
    """What a mould takes, where air stays, what leans in."""
    document = document_file.read(MOULD, file.read_bytes())
    mould = mould_document.to_mould(document, mould_document.master_of(document["master"]))
    seen, walls = look(mould, bool(document.get("injector"))), box(mould)
    return {
        "format": "lamsik-mould-plan",
        "version": 1,
        "name": mould.name,
        "kind": mould.kind,
        "box": {
            "length_mm": round(walls.length_mm, 3),
            "width_mm": round(walls.width_mm, 3),
            "height_mm": round(walls.high_mm, 3),
            "below_mm": round(walls.below_mm, 3),
            "volume_ml": round(walls.volume_ml, 4),
        },
        "cavities": len(mould.cavities),
        "cavity_ml": round(cavity_ml(mould), 4),
        "funnels_ml": round(feed_ml(mould), 4),
        "clay_ml": round(clay_ml(mould), 3) if mould.parts == 2 else 0.0,
        "halves": [
            {
                "name": HALVES[half.name],
                "pour_ml": round(half.pour_ml, 4),
                "box_ml": round(half.box_ml, 4),
                "master_ml": round(half.master_ml, 4),
                "funnel_ml": round(half.feed_ml, 4),
                "keys_ml": round(half.keys_ml, 4),
            }
            for half in seen.halves
        ],
        "undercut_share": round(seen.features.undercut_share, 5),
        "thinnest_mm": round(seen.features.thinnest_mm, 3),
        "advised": [{"kind": row.kind, "suits": row.suits, "why": tell(row.why)} for row in seen.choices],
        "trapped_air": [
            {
                "at_mm": [round(v, 2) for v in p.place_mm],
                "rise_mm": round(p.rise_mm, 3),
                "trapped_ml": round(p.trapped_ml, 4),
            }
            for p in seen.points
        ],
        "tight": [{"what": row.what, "distance_mm": round(row.distance_mm, 2)} for row in seen.tight],
    }


def calc_mix(file: Path) -> dict[str, Any]:
    """What to weigh of each part, and what puts right what is in the cup."""
    document = asked.loads(file.read_bytes(), "mix")
    product = asked.product_of(document)
    job = MixJob(document["net_ml"], document.get("sprue_ml", 0.0), document.get("loss_percent", 5.0) / 100.0)
    at_c, step, filler = (
        document.get("at_c", product.reference_c),
        document.get("step_g", 0.1),
        asked.filler_of(document),
    )
    charge = None
    if filler is not None:
        require(
            product.kind != FOAM,
            "filler",
            filler.name,
            "a foam is planned by its own density: leave the filler out",
        )
        if "density_g_cm3" not in document:
            raise Refused("density_g_cm3", None, "say which density the filled casting shall have")
        charge = filled(product, job.total_ml, document["density_g_cm3"], filler)
    density = document["density_g_cm3"] if charge else _density(product, document, at_c)
    out = weighed_out(product, charge.resin_g if charge else job.total_ml * density, step)
    remedy = None
    if "weighed_g" in document:
        amends = put_right(product, document["weighed_g"], step, (), out.total_g)
        remedy = {
            "ratio_error_percent": round(amends.error_percent, 4),
            "within_tolerance": amends.within,
            "add_g": [round(g, 4) for g in amends.add_g],
            "total_g": round(amends.total_g, 4),
            "over_plan_percent": round(amends.over_percent, 3),
            "says": tell(amends.says),
        }
    return {
        "format": "lamsik-mix-plan",
        "version": 1,
        "product": product.name,
        "total_ml": round(job.total_ml, 4),
        "density_g_cm3": round(density, 5),
        "total_g": round(out.total_g, 4),
        "portions": [
            {
                "part": row.name,
                "exact_g": round(row.exact_g, 5),
                "scale_g": round(row.scale_g, 5),
                "volume_ml": round(row.ml, 4),
            }
            for row in out.portions
        ],
        "ratio_error_percent": round(out.error_percent, 4),
        "tolerance_percent": product.tolerance_percent,
        "filler_g": round(charge.filler_g, 4) if charge else 0.0,
        "pot_life_min": round(at_temperature(product.pot_life_min, product.reference_c, at_c), 3),
        "demould_h": round(at_temperature(product.demould_h, product.reference_c, at_c), 3),
        "cure_h": round(at_temperature(product.cure_h, product.reference_c, at_c), 3),
        "caution": product.caution,
        "remedy": remedy,
    }


def _density(product: Product, document: dict[str, Any], at_c: float) -> float:
    """What a millilitre to be filled weighs [g/cm³]; a foam never by its liquid."""
    wanted = document.get("density_g_cm3")
    if product.kind == FOAM and "expansion" in document:
        require(
            wanted is None, "expansion", document["expansion"], "give its density or its expansion, not both"
        )
        wanted = density_of_ratio(document["expansion"], liquid_g_cm3(product))
    require(
        product.kind == FOAM or "expansion" not in document,
        "expansion",
        document.get("expansion"),
        "only a foam expands",
    )
    free = product.free_rise_g_cm3
    return poured_g_cm3(
        product,
        wanted,
        None if free is None or product.kind != FOAM else at_warmth(free, product.reference_c, at_c),
    )


def calc_pair(file: Path) -> dict[str, Any]:
    """A float under a load, to each mark: the water at which the verdict turns, and the margin in each
    water asked for.
    """
    document = asked.loads(file.read_bytes(), "pair")
    load, rows = asked.load_of(document["load"]), []
    waters = [asked.water_of(row) for row in document["waters"]]
    for bearer in asked.bearers_of(document["float"]):
        turn = turns_at(bearer, load)
        rows.append(
            {
                "mark": bearer.mark,
                "carries_g": round(bearer.capacity_g, 4),
                "turns_at_g_cm3": round(turn.density_g_cm3, 6),
                "turns_sd_g_cm3": round(turn.sd_g_cm3, 6),
                "turns_at_ratio": round(turn.ratio, 6),
                "waters": [
                    {
                        "water": m.water.name,
                        "density_g_cm3": round(m.water.density_g_cm3, 6),
                        "density_sd_g_cm3": round(m.water.spread_g_cm3, 6),
                        "margin_g": round(m.margin_g, 4),
                        "sd_g": round(m.sd_g, 4),
                        "certain": m.certain,
                        "says": tell(m.says),
                    }
                    for m in margins(bearer, load, waters)
                ],
            }
        )
    return {
        "format": "lamsik-pair-check",
        "version": 1,
        "float": document["float"]["name"],
        "load": document["load"]["name"],
        "marks": rows,
    }
