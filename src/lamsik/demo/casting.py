"""The demo shop's moulds, tubs, batches and shots, dated relative to today."""

from collections.abc import Sequence
from datetime import date, timedelta
from typing import Any

from sqlmodel import Session, select

from lamsik.core.castings.born import Born
from lamsik.demo import scenario, scenario_moulds
from lamsik.documents.body.cast import cast_content
from lamsik.documents.engine import apply
from lamsik.documents.moulds.document import first_layout, master_of, of_body, of_weighed
from lamsik.documents.moulds.edits import MOULD
from lamsik.store import documents, ledger, mixes, moulds, pours, routes, stores, weighed
from lamsik.store.tables import Batch, Clock, Document, MouldMade, Pour, WeighedThing, now


def build(session: Session) -> None:
    """Products with tubs, six moulds, their shots, and clocks that run."""
    mixes.starter(session)
    stores.put_setting(session, "bricks", scenario.BRICKS)
    products = {row.name: row for row, _ in mixes.products(session).values()}
    for name, part, lot, came, left, opened, expires, price, colour, heats in scenario.TUBS:
        tub = mixes.tub_of(
            session,
            products[name],
            part,
            lot,
            colour=colour,
            heats=heats,
            opened_on=date.today() - timedelta(days=opened) if opened else None,
            expires_on=date.today() + timedelta(days=expires) if expires else None,
            stirred_at=now() if colour else None,
        )
        ledger.bring(session, tub, came, price)
        if left < came:
            ledger.count(session, tub, left)
    session.flush()
    masters: dict[str, Document] = {}
    versions: dict[str, MouldMade] = {}
    for name, kind, of, edits, product, silicone, expected in scenario_moulds.MOULDS:
        materials = (products[product].code, products[silicone].code)
        masters[name] = _mould(session, name, (kind, of), edits, materials, expected)
    for name, material, lot, days, dead in scenario.MADE:
        row = moulds.make(
            session, masters[name], material, lot, "wax, two coats" if "silicone" not in material else ""
        )
        row.made_at = now() - timedelta(days=days)
        for key, state, why in dead:
            moulds.mark(session, row, key, state, why)
        versions[name] = versions[f"{name} v{row.version}"] = row
    for which, product, ago, grams, filled, results in scenario_moulds.SHOTS_CAST:
        _shot(session, versions[which], products[product], ago, grams, filled, results)
    _running(session)


def _mould(
    session: Session,
    name: str,
    master_of_it: tuple[str, Any],
    edits: Sequence[dict[str, Any]],
    materials: tuple[str, str],
    expected: int | None,
) -> Document:
    kind, of = master_of_it
    if kind == "body":
        row = session.exec(select(Document).where(Document.kind == "body", Document.name == of)).one()
        block, master = of_body(row.name, row.id or 0, row.current, documents.content(session, row))
    elif kind == "weighed":
        thing = weighed.of(
            session, session.exec(select(WeighedThing).where(WeighedThing.name == of[0])).one()
        )
        assert thing.in_water is not None
        block, master = of_weighed(thing.name, thing.id, thing.air_g or 0.0, thing.in_water.volume_ml, of[1:])
    else:
        block = {
            "kind": "box",
            "name": of[0],
            "length_mm": of[1],
            "width_mm": of[2],
            "depth_mm": of[3],
            "volume_ml": of[4],
            "mass_g": of[5],
            "source": {"kind": "own", "note": ""},
        }
        master = master_of(block)
    block["demouldings"] = expected
    content = {
        **first_layout(block, master),
        "name": name,
        "casting_product": materials[0],
        "mould_product": materials[1],
    }
    for edit in edits:
        content = apply(MOULD, content, edit, lambda _: master)
    return documents.begin(session, "mould", content, "first layout")


def _shot(
    session: Session,
    mould_made: MouldMade,
    product: Document,
    ago: float,
    grams: float,
    filled: float,
    results: Sequence[tuple[str, ...]],
) -> None:
    """A shot of days ago: weighed, poured, counted; good castings become pieces."""
    pour = pours.begin(session, mould_made, product.id or 0, {}, 20.0)
    at = now() - timedelta(days=ago)
    recipe = mixes.product_of(session, product.id or 0)
    shares = mixes.weigh_lines(session, product.id or 0, recipe, grams)
    batch = Batch(
        product_id=product.id or 0,
        purpose=f"shot {pour.shot} of {session.get_one(Document, mould_made.mould_id).name}"[:80],
        mould_id=mould_made.mould_id,
        made_id=mould_made.id,
        pour_id=pour.id,
        at=at,
        weighed=shares,
        plan={
            "net_ml": filled,
            "sprue_ml": 0.0,
            "filled_ml": filled,
            "total_g": grams,
            "step_g": 0.1,
            "density": None,
            "rows": [{"part": s["part"], "grams": s["grams"]} for s in shares],
        },
    )
    pours.begin_weighing(session, batch)
    pours.mix(session, batch, recipe)
    pours.pour_out(session, batch, recipe)
    pours.demould(session, pour)
    pours.take_out(session, pour)
    new = pours.count(
        session,
        pour,
        [pours.Counted(cavity, not faults, tuple(faults), "") for cavity, *faults in results],
        lambda content: cast_content(content, Born(recipe.name, recipe.kind, recipe.density_g_cm3)),
    )
    for clock in session.exec(select(Clock).where(Clock.batch_id == batch.id)).all():
        session.delete(clock)  # they rang long ago
    for piece in new:
        piece.started_at = at + timedelta(hours=2)
        for step in routes.touched(session, piece).values():
            step.done_at = piece.started_at
    batch.mixed_at = pour.at = pour.poured_at = at
    pour.finished_at = at + timedelta(hours=2)


def _running(session: Session) -> None:
    """A cure that runs now."""
    last = session.exec(select(Pour).order_by(Pour.id.desc())).first()  # type: ignore[union-attr]
    link = f"/pours/{last.id}" if last else ""
    session.add(
        Clock(
            name="Demould, box of Mudlark, second half",
            kind="demould",
            started_at=now() - timedelta(hours=9),
            ends_at=now() + timedelta(hours=2, minutes=40),
            link="/moulds",
        )
    )
    session.add(
        Clock(
            name="Full cure, shot of yesterday",
            kind="full cure",
            started_at=now() - timedelta(hours=20),
            ends_at=now() + timedelta(hours=27),
            link=link,
        )
    )
    session.flush()
