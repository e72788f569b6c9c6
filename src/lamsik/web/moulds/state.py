"""What the mould's page shows of one document: built here, bound by static/js/shared/bind.js."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from urllib.parse import urlencode

import numpy as np

from lamsik.core.mixes.product import Product
from lamsik.core.money import rounded
from lamsik.core.moulds.advice import Look, look
from lamsik.core.moulds.faults import MasterUse
from lamsik.core.moulds.funnels import feed_ml, feeds
from lamsik.core.moulds.heat import Heat, level_error_mm, shrinkage
from lamsik.core.moulds.layout import Mould, box, cavity_ml
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.press import pressed
from lamsik.core.moulds.pull import Choice
from lamsik.core.moulds.silicone import Bricks, Half, Saved, clay_ml, lift, walls_of
from lamsik.core.moulds.vents import HighPoint
from lamsik.core.quantities import numeral, plainly, said
from lamsik.core.shapes.sources import Source
from lamsik.core.trade.figures import usual
from lamsik.core.trade.mould_kinds import MOULD_KINDS, PRESS
from lamsik.documents.moulds.document import to_mould
from lamsik.documents.rows import Document
from lamsik.drawings.mould import picture
from lamsik.web.moulds.view import (
    AirPanel,
    AmountsPanel,
    BoxPanel,
    CastingPanel,
    ChoiceRow,
    HalfRow,
    MouldPanel,
    MouldView,
    SpotRow,
    TextRow,
    VentRow,
    WellRow,
)
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, Said, edit, plain
from lamsik.words.moulds import HALVES, PULLS, verdict
from lamsik.words.tell import capital, tell


@dataclass(frozen=True)
class MouldShop:
    """What a mould is looked at with: products by code, price per kilogram by code, bricks, the master's
    use, currency, the density of silicone where no product is chosen.
    """

    products: dict[str, tuple[int, Product]]
    prices: dict[str, float]
    bricks: Bricks
    use: MasterUse
    source: Source
    mould_id: int = 0
    currency: str = "EUR"
    silicone_g_cm3: float = usual("casting")["silicone_g_cm3"]
    heat: Callable[[Document, float | None], Heat | None] = lambda _document, _melt: None


def view(document: Document, master: Master, shop: MouldShop, settled: bool) -> dict[str, Any]:
    """The computed part of the state; a mould as dragged is drawn, its search for better ones waits until
    it is settled.
    """
    mould = to_mould(document, master)
    seen = look(mould, bool(document.get("injector")))
    return plain(
        MouldView(
            _head(document, mould, seen, settled),
            _mould(mould, seen, shop),
            _box(document, mould, seen),
            _air(document, mould, seen),
            _amounts(document, mould, seen, shop),
            _casting(document, mould, shop),
        )
    )


def _head(document: Document, mould: Mould, seen: Look, settled: bool) -> Head:
    names = ("kind", "pull", "stand", "mould_product", "casting_product")
    return Head(
        fields=fields(document),
        settled=settled,
        near=None,
        sentence=verdict(mould, seen),
        selected={name: document.get(name, "") for name in names} | {"end": document["funnel"]["end"]},
    )


def _mould(mould: Mould, seen: Look, shop: MouldShop) -> MouldPanel:
    return MouldPanel(
        picture=picture(mould, seen.points, seen.tight, seen.features.undercut),
        choices=[_choice(choice, mould) for choice in seen.choices],
        master=_master(mould.master, mould, shop.use),
        use=tell(shop.use.says),
        use_last=shop.use.last,
        undercut=_undercut(mould, seen),
        facts=_facts(mould, seen),
        source=shop.source.describe(),
        not_for_sale=not shop.source.may_sell,
    )


def _box(document: Document, mould: Mould, seen: Look) -> BoxPanel:
    sides = (box(mould).length_mm, box(mould).width_mm, box(mould).high_mm)
    return BoxPanel(
        box_size=" × ".join(said(side, "length", 0) for side in sides),
        tight=[
            Said(
                str(n),
                f"{tell(t.what)}: {said(t.distance_mm, 'length')}, {plainly(mould.edge_mm, 'length')} wanted",
            )
            for n, t in enumerate(seen.tight)
        ],
        cavities=[_spot(row) for row in document["cavities"]],
        count=str(len(document["cavities"])),
        wells=[_well(row) for row in document["wells"]],
        texts=[_text(row) for row in document["texts"]],
        is_press=mould.kind == PRESS,
        has_halves=mould.parts == 2,
        has_funnel=bool(feeds(mould)),
        boards=mould.boards,
        proud=mould.keys.proud,
        injector=bool(document.get("injector")),
    )


def _air(document: Document, mould: Mould, seen: Look) -> AirPanel:
    air = bool(seen.points or seen.turned)
    return AirPanel(
        points=[Said(str(n), _point(point, mould)) for n, point in enumerate(seen.points, start=1)],
        air=air,
        no_air=not air,
        vents=[_vent(row) for row in document["vents"]],
        no_vents=not document["vents"],
    )


def _choice(choice: Choice, mould: Mould) -> ChoiceRow:
    return ChoiceRow(
        key=choice.kind,
        kind=choice.kind,
        why=tell(choice.why),
        suits=choice.suits,
        now=choice.kind == mould.kind,
        edit=edit("set", path="kind", text=choice.kind),
    )


def _point(point: HighPoint, mould: Mould) -> str:
    return (
        f"{said(point.trapped_ml, 'volume')} at {_place(point.place_mm, mould)},"
        f" {said(point.rise_mm, 'length')} over its"
        " way out"
    )


def _place(spot: tuple[float, float, float], mould: Mould) -> str:
    mesh = mould.lies
    along = spot[0] - float(mesh.vertices[:, 0].min())
    return f"{said(along, 'length', 0)} from the nose"


def _master(master: Master, mould: Mould, use: MasterUse) -> str:
    mass = f", {said(master.mass_g, 'mass', 1)}" if master.mass_g is not None else ", not weighed"
    shape = (
        "; its shape is not known: a stand-in of the same size and volume is drawn"
        if master.stands_in
        else ""
    )
    return f"{master.name}: {said(master.volume_ml, 'volume')}{mass}{shape}."


def _undercut(mould: Mould, seen: Look) -> str:
    share = seen.features.undercut_share
    if share < 0.002:
        return f"Pulled towards {PULLS[mould.pull].split(':')[0]}, nothing leans in."
    return (
        f"Pulled towards {PULLS[mould.pull].split(':')[0]}, {said(100 * share, 'percent')} of its outline"
        " leans in (red"
        " in the plan)."
    )


def _spot(row: Document) -> SpotRow:
    key, path = row["key"], f"cavities.{row['key']}"
    return SpotRow(
        key=key,
        title=f"Cavity {key[1:]}",
        x=f"{path}.x_mm",
        y=f"{path}.y_mm",
        turn=f"{path}.turn_deg",
        remove=edit("remove", group="cavities", key=key),
        remove_says=f"Take out cavity {key[1:]}",
    )


def _off(row: Document, group: str, title: str) -> dict[str, str]:
    """What rows of vents, wells and texts have in common."""
    remove = edit("remove", group=group, key=row["key"])
    return {
        "key": row["key"],
        "title": title,
        "remove": remove,
        "remove_says": f"Take off {title}",
    }


def _vent(row: Document) -> VentRow:
    title = f"Vent {row['key'][1:]}"
    path = f"vents.{row['key']}"
    return VentRow(
        **_off(row, "vents", title),
        label=title,
        across=f"{path}.across_mm",
        shape=f"{path}.shape",
        shape_says=f"Shape of {title}",
    )


def _well(row: Document) -> WellRow:
    path = f"wells.{row['key']}"
    return WellRow(
        **_off(row, "wells", f"Well {row['key'][1:]}"),
        across=f"{path}.across_mm",
        deep=f"{path}.deep_mm",
    )


def _text(row: Document) -> TextRow:
    path = f"texts.{row['key']}"
    return TextRow(
        **_off(row, "texts", str(row["says"])),
        says=f"{path}.says",
        high=f"{path}.high_mm",
        x=f"{path}.x_mm",
        y=f"{path}.y_mm",
        half=f"{path}.half",
    )


def _amounts(document: Document, mould: Mould, seen: Look, shop: MouldShop) -> AmountsPanel:
    code = str(document.get("mould_product") or "")
    key, product = shop.products.get(code, (0, None))
    density = product.density_g_cm3 if product else shop.silicone_g_cm3
    true = sum(half.pour_ml for half in seen.halves)
    saved = Saved(box(mould).volume_ml, true, density, shop.prices.get(code))
    built = walls_of(mould, shop.bricks)
    cost = f", {rounded(saved.cost, shop.currency).said}" if saved.cost is not None else ""
    rows = []
    for n, half in enumerate(seen.halves):
        rows.append(
            HalfRow(
                key=str(n),
                name=HALVES[half.name],
                ml=said(half.pour_ml, "volume", 1),
                g=said(half.pour_ml * density, "mass", 0),
                how=(
                    f"box {numeral(half.box_ml, 'volume', 1)} − master"
                    f" {numeral(half.master_ml, 'volume', 1)} − funnel {numeral(half.feed_ml, 'volume', 1)}"
                    f" {'+' if half.keys_ml >= 0 else '−'} keys {numeral(abs(half.keys_ml), 'volume', 1)}"
                ),
                mix=_mix_link(key, half, shop, mould) if product else "/mixes",
                mix_says=f"Mix the {half.name}",
            )
        )
    short = (
        f"; {built.short} bricks short"
        if built.short
        else ""
        if shop.bricks.have
        else "; count yours in Stores"
    )
    strip = (
        "" if built.strip_high_enough else f", too low: {said(box(mould).high_mm, 'length', 0)} are needed"
    )
    tape = f"; {said(built.strip_short_mm, 'length', 0)} short" if built.strip_short_mm else ""
    return AmountsPanel(
        halves=rows,
        clay=f"{said(clay_ml(mould), 'volume', 0)} of clay for the bed" if mould.parts == 2 else "",
        walls=f"{built.per_course} bricks a course, {built.courses} courses: {built.bricks}{short}",
        walls_short=bool(built.short),
        strip=f"or {said(built.strip_mm, 'length', 0)} of strip{tape}{strip}",
        saved=(
            f"Box arithmetic would mix {said(saved.box_ml, 'volume', 0)}:"
            f" {said(saved.wasted_ml, 'volume', 0)},"
            f" {said(saved.wasted_ml * density, 'mass', 0)}{cost} too much."
        ),
        lift=f"In this silicone {tell(lift(mould, density).says)}.",
        lifts=lift(mould, density).net_g > 0,
        density_of=product.name if product else f"a usual silicone, {plainly(density, 'density')}",
        pressed=tell(pressed(mould).says) if mould.kind == PRESS else "",
        press_missing=mould.kind == PRESS and pressed(mould).missing_ml > 0,
    )


def _mix_link(product_id: int, half: Half, shop: MouldShop, mould: Mould) -> str:
    """Where its material is mixed, with what it is for."""
    asked = {
        "product": product_id,
        "net": said(half.pour_ml, "volume", 1),
        "mould": shop.mould_id,
        "purpose": f"{half.name} of {mould.name}"[:60],
    }
    return f"/mixes?{urlencode(asked)}"


def _casting(document: Document, mould: Mould, shop: MouldShop) -> CastingPanel:
    _, cast = shop.products.get(str(document.get("casting_product") or ""), (0, None))
    hot = document.get("casting_c")
    if hot is None and cast is not None:
        hot = cast.process_c
    warm = shop.heat(
        document,
        (
            None
            if hot is None
            or (cast is not None and cast.process_c is None and document.get("casting_c") is None)
            else float(hot)
        ),
    )
    long, off = float(np.ptp(mould.lies.vertices[:, 0])), float(document.get("level_deg", 0.0))
    percent = cast.shrink_percent if cast else mould.shrink_percent
    shrunk = shrinkage(cavity_ml(mould), percent, feed_ml(mould) / max(len(mould.cavities), 1))
    feed = (
        f"{said(shrunk.shrinks_ml, 'volume')} shrink away in each cavity, the funnel feeds"
        f" {said(shrunk.feeds_ml, 'volume')}"
    )
    short = shrunk.short_ml > 1e-6 and MOULD_KINDS[mould.kind].is_fed
    lacks = f": {said(shrunk.short_ml, 'volume')} short, widen or lengthen it" if short else ""
    return CastingPanel(
        heat=(
            f"{capital(warm.says)}."
            if warm
            else "Nothing is poured hot here. Say what is cast, or how hot: then its heat is checked."
        ),
        heat_bad=warm is not None and not warm.stands,
        shrink=f"{feed}{lacks}.",
        shrink_bad=short,
        level=(
            f"Off level by {plainly(off, 'angle')} one end of an open pour gets"
            f" {said(level_error_mm(long, off), 'length')} thicker"
            f" over its {said(long, 'length', 0)}."
        ),
    )


def _facts(mould: Mould, seen: Look) -> list[Fact]:
    f = seen.features
    return [
        Fact(
            "cavity",
            "One cavity",
            said(cavity_ml(mould), "volume"),
            "The master's own volume, enlarged by the shrinkage set here; never the box it fits in.",
        ),
        Fact(
            "shadow",
            "Projected area",
            said(f.projected_mm2 / 100, "area"),
            "Its outline seen along the pull: what bands or a press have to hold.",
        ),
        Fact(
            "thin",
            "Thinnest section",
            said(f.thinnest_mm, "length"),
            f"Across, at {said(f.thinnest_x_mm - float(mould.lies.vertices[:, 0].min()), 'length', 0)}"
            " from the nose;"
            " both ends left out.",
        ),
    ]
