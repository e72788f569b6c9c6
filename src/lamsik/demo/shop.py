"""Build the demo shop: everything is made through the same store and core calls as by hand."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from random import Random
from typing import Any

from sqlmodel import Session, select

from lamsik.core.floats.design import own_mass_g
from lamsik.core.floats.rating import capacity_g
from lamsik.core.floats.shotting import LEAD_G_CM3, Shot, ShotTable
from lamsik.core.materials import body_material
from lamsik.core.paints.amounts import LOSS, needed
from lamsik.core.paints.mixture import Dropped
from lamsik.core.route.repaint import CAME, KEPT
from lamsik.core.shapes.blades import STARTING_BLADE
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Want, host_of
from lamsik.core.shapes.forms import FORMS
from lamsik.core.tank.ballast_base import base_of
from lamsik.core.tank.ballast_tool import Tool
from lamsik.core.tank.mass import budget
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.demo import (
    casting,
    colours,
    lent,
    ordered,
    photo,
    scenario,
    scenario_customers,
    scenario_paints,
    schemes,
    stocked,
)
from lamsik.documents.blades.document import content_of
from lamsik.documents.body.document import new_document, to_design, with_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.body.lines import with_lines
from lamsik.documents.engine import apply
from lamsik.documents.floats import document as float_document
from lamsik.documents.floats.edits import FLOAT, Shop
from lamsik.documents.shots.document import table_content
from lamsik.store import (
    documents,
    mixes,
    order_lines,
    orders,
    paint_mixes,
    people,
    pictures,
    pieces,
    pots,
    pours,
    routes,
    shelf,
    stands,
    starter,
    stores,
    tub,
    weighed,
)
from lamsik.store.events import WHO
from lamsik.store.tables import (
    Batch,
    Document,
    Family,
    Instrument,
    LogEntry,
    Observation,
    Order,
    OrderLine,
    PaintPatch,
    PaintTool,
    Payment,
    Piece,
    PieceStep,
    Pour,
    ShopWater,
    Tracing,
    now,
)
from lamsik.words.revisions import note

PAID_UNTIL = 100
"""Orders that were placed so many days ago and before are paid."""
STOP_AFTER = {
    "carve": "carve",
    "seal": "coat:seal1",
    "fit": "fit",
    "paint": "coat:base1",
    "clear": "coat:clear1",
    "pack": "pack",
    "shipped": "ship",
}


def build(session: Session) -> None:
    """Fill an empty database with the scenario, dated relative to today."""
    random = Random(7)
    session.info[WHO] = [people.named(session, name).id for name in scenario.PEOPLE][0]
    starter.stock(session)
    stores.put_setting(session, "shop", scenario.SHOP)
    for name, temperature, salinity in scenario.WATERS:
        session.add(ShopWater(name=name, temperature_c=temperature, salinity_psu=salinity))
    for number, (name, rows) in enumerate(schemes.SCHEMES, start=3):
        documents.create(session, "scheme", f"S-{number:03d}", schemes.content(name, rows))
    session.flush()
    shop = stores.catalogue(session)
    codes = {row.name: row.code for row in documents.listed(session, "scheme")}
    bodies = [_body(session, row, shop, codes) for row in scenario.BODIES]
    others = [_body(session, row, shop, codes, edits) for row, edits in scenario.OTHERS]
    _keep_photo(session, others[-1], "old pike lure.jpg")
    for which, edits in scenario.TRIMS:
        _trim(session, bodies[which], edits, shop)
    for which, number, name in scenario.REVISION_NAMES:
        documents.revision(session, bodies[which], number).name = name
    which, lengths, woods, excluded = scenario.FAMILY
    session.add(
        Family(design_id=bodies[which].id or 0, lengths_mm=lengths, materials=woods, excluded=excluded)
    )
    for changes in scenario.BLADES:
        documents.begin(session, "blade", content_of(replace(STARTING_BLADE, **changes)))
    _runs(session, bodies)
    customers = [
        orders.customer_named(session, name, {"contact": contact})
        for name, contact in scenario_customers.CUSTOMERS
    ]
    for who, which, *terms in scenario.ORDERS:
        _order(session, random, customers[who], bodies[which], scenario.BODIES[which], terms)
    _weighed(session)
    _floats(session)
    for which, state in scenario.STOCK_PIECES:
        _piece(session, random, bodies[which], None, 20, state)
    casting.build(session)
    for which in scenario_paints.BATCH:
        _piece(session, random, bodies[which], None, 3, "fit")
    _known(session, bodies)
    _repaint(session)
    _painted_float(session)
    colours.build(session)
    _mixed(session)
    lent.build(session)
    ordered.build(session)
    stocked.build(session)
    _dated(session)


def _repaint(session: Session) -> None:
    """A customer's bait that came to be painted anew: traced from a photo and scaled to the volume it has by
    its weighings, its eyes stay.
    """
    name, rows = schemes.REPAINT
    scheme = documents.begin(session, "scheme", schemes.content(name, rows))
    row, edits = scenario_paints.REPAINT
    catalogue = stores.catalogue(session)
    volume = {"do": "resize", "by": "volume", "text": f"{scenario_paints.CAME_ML} ml"}
    body = _body(session, row, catalogue, {name: scheme.code}, (*edits, volume), traced=True)
    _keep_photo(session, body, "harbour lure, as it came.jpg")
    _weighed(session, scenario_paints.CAME)
    piece = pieces.start(session, body, repaint=KEPT)
    piece.started_at = now() - timedelta(days=2)
    pieces.end_step(session, piece, CAME)
    scale = session.exec(select(Instrument)).first()
    if scale is not None:
        text = f"{scenario_paints.CAME_G:.1f}"
        pieces.weigh(
            session, piece, f"stage:{CAME}", scenario_paints.CAME_G, text, scale
        ).at = piece.started_at


def _mixed(session: Session) -> None:
    """A body whose paints stand on the shelf, and what was mixed for a set of it, used and weighed."""
    name, pieces, lost, gained = scenario_paints.MIXED_FOR
    row = scenario_paints.SHELF_BODY
    scheme = session.exec(select(Document).where(Document.name == row[8], Document.kind == "scheme")).one()
    body = _body(session, row, stores.catalogue(session), {row[8]: scheme.code})
    paints = dict(shelf.shelf(session))
    recipes = {one.code: match.parts for one, match in shelf.matches(session)}
    design = to_design(documents.content(session, body))
    rows = needed(design, pieces, LOSS, paints, recipes)
    one = next(one for one in rows if one.paint.name.startswith(name))
    parts = [Dropped(code, paints[code], drops) for code, drops in one.amount.drops]
    plan = paint_mixes.planned(name, parts, 0.01, design_id=body.id, pieces=pieces, by=one.by)
    of = documents.coded(session, "match", one.paint.code)
    purpose = f"{name} for {pieces} pieces of {body.name}"
    batch = Batch(product_id=(of.id or 0) if of else 0, purpose=purpose, plan=plan)
    pours.begin_weighing(session, batch)
    for part in parts:
        pot = next(iter(pots.of_part(session, part.code, part.called) or []), None)
        mixes.weigh(session, batch, part.called, round(part.grams, 2), pot)
    product = mixes.recipe_of(session, batch)
    pours.mix(session, batch, product)
    pours.pour_out(session, batch, product)
    grams = sum(line["grams"] for line in batch.weighed)
    dry = gained * (1.0 - lost) * grams * plan["dry_share"]
    paint_mixes.teach(
        session, batch, {"left_g": None, "lost_g": round(lost * grams, 2), "gained_g": round(dry, 2)}
    )


def _painted_float(session: Session) -> None:
    """A float that a scheme paints."""
    name, rows = schemes.ON_FLOATS
    scheme = documents.begin(session, "scheme", schemes.content(name, rows))
    shop = Shop(
        {water.name: water for water in map(stores.water_of, stores.waters(session))},
        schemes=stores.schemes(session),
        versions=stores.scheme_versions(session),
    )
    title, kind, edits = scenario_paints.FLOAT
    content = float_document.blank(title, kind, shop.waters["Holm mere"], scenario.SHOTS[0])
    for edit in (*edits, {"do": "scheme", "code": scheme.code}):
        content = apply(FLOAT, content, edit, shop)
    documents.begin(session, "float", content, "first drawing")


def _known(session: Session, bodies: Sequence[Document]) -> None:
    """What the shop has tried of paints, and what it sprays through."""
    for under, over, after, result, ago, note_of in scenario_paints.PATCHES:
        at = now() - timedelta(days=ago)
        session.add(
            PaintPatch(under=under, over=over, after_h=float(after), result=result, note=note_of, at=at)
        )
    for name, kind, source, which, side, hangs, note_of in scenario_paints.TOOLS:
        body_id = None if which is None else bodies[which].id
        session.add(
            PaintTool(
                name=name, kind=kind, source=source, body_id=body_id, side=side, hangs=hangs, note=note_of
            )
        )


def _dated(session: Session) -> None:
    """What was done over the last year is in the log under its own day, each thing by itself."""
    session.flush()
    own: dict[tuple[str, int], datetime | None] = {
        **{("step", row.id or 0): row.done_at for row in session.exec(select(PieceStep)).all()},
        **{("observed", row.id or 0): row.at for row in session.exec(select(Observation)).all()},
    }
    of: dict[tuple[str, int], datetime | None] = {
        **{("piece", row.id or 0): row.started_at for row in session.exec(select(Piece)).all()},
        **{("order", row.id or 0): row.placed_at for row in session.exec(select(Order)).all()},
        **{("pour", row.id or 0): row.poured_at for row in session.exec(select(Pour)).all()},
        **{("batch", row.id or 0): row.at for row in session.exec(select(Batch)).all()},
    }
    for entry in session.exec(select(LogEntry)).all():
        day = own.get((entry.part, entry.row_id)) or of.get((entry.of, entry.of_id))
        entry.at, entry.act = day or entry.at, f"{entry.act} {entry.part} {entry.row_id}"
        session.add(entry)


def _body(
    session: Session,
    row: tuple[Any, ...],
    shop: Catalogue,
    codes: dict[str, str],
    edits: tuple[dict[str, Any], ...] = (),
    traced: bool = False,
) -> Document:
    name, form, length, depth, width, wood, parts, lip, scheme, behaviour, water = row
    material = body_material(wood)
    host = host_of(material)
    want = Want(behaviour, BEHAVIOURS[behaviour].speed_cm_s, 0.0)
    content = new_document(
        name, FORMS[form], host, shop.waters[water], want, (float(length), float(depth), float(width))
    )
    if traced:
        content = with_lines(content, photo.traced(to_design(content).body), None, float(width))
    for code, seat, share in scenario.PARTS[parts]:
        content = apply(
            BODY, content, {"do": "hang", "code": code, "seat": seat, "x_mm": share * length}, shop
        )
    if lip:
        content = apply(BODY, content, {"do": "lip", "code": lip}, shop)
    content = apply(BODY, content, {"do": "scheme", "code": codes[scheme]}, shop)
    for key in [one["key"] for one in content["layers"] if content["purpose"] == "float"]:
        if key.rstrip("0123456789") in scenario.NOT_ON_FLOATS:
            content = apply(BODY, content, {"do": "remove", "group": "layers", "key": key}, shop)
    for edit in edits:
        content = apply(BODY, content, edit, shop)
    row_made = documents.begin(session, "body", content, "first drawing")
    design = to_design(content)
    if name in scenario.BALLAST:
        base, bench = base_of(design), stores.bench(session)
        stock, holes = {slug.name: slug for slug in bench.slugs}, []
        for n, (metal, steps, x_mm, drill_mm, beside_mm) in enumerate(scenario.BALLAST[name], start=1):
            tool = Tool(base, bench, stock[metal], drill_mm, beside_mm)
            holes.append(tool.hole(f"b{n}", x_mm, steps * tool.step_g))
        content = with_design(content, replace(design, ballast=tuple(holes)))
        documents.save(session, row_made, content, row_made.current, "ballast")
    return row_made


def _keep_photo(session: Session, row: Document, name: str) -> None:
    """The photo from which a body was traced, its marks still in it."""
    picture, marks = photo.template(to_design(documents.content(session, row)).body)
    session.add(
        Tracing(
            name=name,
            digest=pictures.put(pictures.folder_of(session), picture),
            width_px=photo.WIDE,
            height_px=photo.HIGH,
            state={"onto": 0, "marks": marks},
        )
    )


def _weighed(session: Session, rows: Sequence[tuple[Any, ...]] = scenario.WEIGHED) -> None:
    """Things weighed by themselves."""
    scales = session.exec(select(Instrument)).all()
    scales[1].spread_g, scales[1].checked_g, scales[1].checked_on = (
        0.01,
        50.0,
        date.today() - timedelta(days=21),
    )
    for name, kind, air, water, sinker, both, marks, stage, where, scale, ago in rows:
        row = session.exec(select(ShopWater).where(ShopWater.name == where)).one()
        weighed.keep(
            session,
            weighed.Weighed(
                name=name,
                kind=kind,
                air_g=air,
                water_g=water,
                sinker_g=sinker,
                both_g=both,
                marks=tuple(marks),
                stage=stage,
                water=stores.water_of(row),
                instrument_id=scales[scale].id,
                at=now() - timedelta(days=ago),
            ),
        )


def _floats(session: Session) -> None:
    """Floats, shot tables, and finished floats weighed by difference."""
    for name, country, series, shots, *density in (scenario.SHOTS, scenario.SINKERS):
        sizes = tuple(Shot(called, mass_g, density[0] if density else LEAD_G_CM3) for called, mass_g in shots)
        table = ShotTable(str(name), str(country), str(series), sizes)
        documents.begin(session, "shots", table_content(table))
    waters = {water.name: water for water in map(stores.water_of, stores.waters(session))}
    floats = []
    for title, kind, edits in scenario.FLOATS:
        content = float_document.blank(title, kind, waters["Holm mere"], scenario.SHOTS[0])
        for edit in edits:
            content = apply(FLOAT, content, edit, Shop(waters))
        floats.append(
            (
                documents.begin(session, "float", content, "first drawing"),
                float_document.to_float(content),
            )
        )
    scale = session.exec(select(Instrument)).all()[1]
    for which, title, stage, off in scenario.FINISHED:
        row, design = floats[which]
        marks = tuple(
            (mark.name, round(26.94 - capacity_g(design, mark.height_mm) - off, 2)) for mark in design.marks
        )
        weighed.keep(
            session,
            weighed.Weighed(
                name=title,
                kind="float",
                air_g=round(own_mass_g(design) - off / 2, 2),
                sinker_g=26.94,
                marks=marks,
                stage=stage,
                float_id=row.id,
                water=waters["Holm mere"],
                instrument_id=scale.id,
                at=now() - timedelta(days=9),
            ),
        )


def _trim(session: Session, row: Document, edits: tuple[dict[str, Any], ...], shop: Catalogue) -> None:
    before = documents.content(session, row)
    after = before
    for edit in edits:
        after = apply(BODY, after, edit, shop)
    documents.save(session, row, after, row.current, note(to_design(before), to_design(after)))


def _runs(session: Session, bodies: list[Document]) -> None:
    for which, way, distance, seconds, net in scenario.TIMED:
        key, at = bodies[which].id or 0, now() - timedelta(days=12)
        tub.keep_timed(session, key, way, seconds, distance_m=distance, net_g=net, at=at)
    for which, out, speed, line, rod, depth, words in scenario.TOWED:
        towed = {"line_out_m": out, "speed_m_s": speed, "line_mm": line, "rod_m": rod, "note": words}
        key, at = bodies[which].id or 0, now() - timedelta(days=9)
        tub.keep_towed(session, key, depth, **towed, at=at)


def _order(
    session: Session,
    random: Random,
    customer: Any,
    design: Document,
    body: tuple[Any, ...],
    terms: Sequence[Any],
) -> None:
    quantity, ago, due, state = terms
    water = session.exec(select(ShopWater).where(ShopWater.name == body[10])).one()
    scheme = session.exec(select(Document).where(Document.name == body[8], Document.kind == "scheme")).one()
    placed = now() - timedelta(days=ago)
    order = Order(
        number=orders.next_number(session),
        customer_id=0,
        due_on=date.today() + timedelta(days=due),
        placed_at=placed,
    )
    line = OrderLine(
        order_id=0,
        quantity=quantity,
        length_mm=float(body[2]),
        typed={"length": f"{body[2]} mm"},
        form=body[1],
        material=body[5],
        scheme_id=scheme.id,
        behaviour=body[9],
        water_id=water.id,
        rate_minor=random.choice((2400, 2800, 3200, 3600)),
        like_id=design.id,
    )
    if state != "enquiry":
        order.accepted_at, line.design_id = placed + timedelta(days=1), design.id
    orders.place(session, order, customer, line)
    if state != "enquiry":
        order_lines.freeze(session, order)
    if state == "shipped" and ago > PAID_UNTIL:
        on = date.today() + timedelta(days=due)
        paid = Payment(order_id=0, paid_on=on, minor=order.price_minor or 0, how="transfer")
        orders.pay(session, order, paid)
    if state in STOP_AFTER:
        for _ in range(quantity):
            _piece(session, random, design, line, ago - 2, state)


def _piece(
    session: Session, random: Random, row: Document, line: OrderLine | None, ago: int, state: str
) -> None:
    piece = pieces.start(session, row, line)
    piece.started_at = now() - timedelta(days=ago)
    design = to_design(dict(pieces.document_of(session, piece)))
    mass, drift = budget(design), random.gauss(0, 0.06)
    scale = session.exec(select(Instrument)).first()
    at = piece.started_at
    hands = people.here(session)
    for step in routes.of(session, piece):
        at += timedelta(hours=step.wait_h + 3)
        session.add(
            PieceStep(
                piece_id=piece.id or 0,
                step=step.key,
                done_at=min(at, now()),
                person_id=hands[(piece.id or 0) // 3 % len(hands)].id,
            )
        )
        if step.weigh and scale:
            _weigh(
                session,
                piece,
                scale,
                step.weigh,
                mass.up_to(step.weigh) + drift * mass.parts[0].mass_g,
                random,
                min(at, now()),
            )
        if step.key == STOP_AFTER[state]:
            break
    stands.anew(session, piece)


def _weigh(
    session: Session, piece: Piece, scale: Instrument, stage: str, mass: float, random: Random, at: Any
) -> None:
    reading = round(mass + random.gauss(0, 0.05), 1)
    if reading > 0:
        pieces.weigh(session, piece, f"stage:{stage}", reading, f"{reading:.1f}", scale).at = at
