"""Heat and clocks that stand before a pour: the same words on the mould's, the casting's and the pour's
page.
"""

from dataclasses import dataclass
from datetime import datetime

from lamsik.core.castings.gates import ASKS, REFUSED, Gate, gate, when
from lamsik.core.errors import Refused, require
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.heat import Heat, heat, limit_of, limits
from lamsik.core.quantities import plain_numeral, plainly
from lamsik.documents.rows import Document as Content
from lamsik.store import mixes, moulds, stores
from lamsik.store.tables import MouldMade, now
from lamsik.web.batches.planning import BatchAsked
from lamsik.web.shared.db import db
from lamsik.words.tell import tell


@dataclass(frozen=True)
class Temperatures:
    """The three of a pour [°C]: melt and mould, None where that does not matter, and room."""

    melt_c: float | None
    mould_c: float | None
    room_c: float


def temperatures(product: Product, content: Content, asked: BatchAsked) -> Temperatures:
    """What a casting form says; the melt's is the mould document's or the tin's unless typed.

    Raises:
        Refused: a room that is none, a melt colder than its mould, a melt nobody has said of a product that
            is poured hot.
    """
    room = (
        asked.value("at", "temperature", "room", "", float(stores.setting(db(), "mixing")["room_c"])) or 0.0
    )
    require(
        -10.0 <= room <= 60.0,
        "at",
        asked.get("at"),
        f"a workshop is {plain_numeral(-10, 'temperature')} to {plainly(60, 'temperature')}; the melt has"
        " a field of"
        " its own",
    )
    drawn = content.get("casting_c")
    melt = asked.value(
        "melt", "temperature", "melt", "", product.process_c if drawn is None else float(drawn)
    )
    if product.kind != "plastisol" and product.process_c is None and not asked.get("melt"):
        melt = None
    require(
        melt is not None or product.kind != "plastisol",
        "melt",
        "",
        "say how hot it is poured: the tin does not",
    )
    mould = asked.value("mould_at", "temperature", "mould", "")
    require(
        mould is None or -10.0 <= mould <= 300.0,
        "mould_at",
        asked.get("mould_at"),
        "a mould is −10 to 300 °C",
    )
    require(
        melt is None or mould is None or mould < melt,
        "mould_at",
        asked.get("mould_at"),
        "a mould as hot as the melt never sets it",
    )
    require(melt is None or 20.0 <= melt <= 1200.0, "melt", asked.get("melt"), "a melt is 20 to 1200 °C")
    return Temperatures(melt, mould, room)


def material_of(content: Content, mould_made: MouldMade | None) -> tuple[str, Product | None]:
    """What a mould is of: as noted when it was made, else as drawn; with the product of that name if there
    is one.
    """
    products = [(row.code, product) for row, product in mixes.products(db()).values()]
    if mould_made is not None and mould_made.material:
        return mould_made.material, next(
            (product for _, product in products if product.name == mould_made.material), None
        )
    product_used = next((product for code, product in products if code == content.get("mould_product")), None)
    return (product_used.name if product_used else "this mould"), product_used


def heat_of(
    content: Content, mould_made: MouldMade | None, melt_c: float | None, typed_c: float | None = None
) -> Heat | None:
    """The melt against the mould; None for what is poured cold."""
    if melt_c is None:
        return None
    kept = stores.setting(db(), "heat")
    material, product = material_of(content, mould_made)
    own = product.heat_limit_c if product else None
    return heat(
        material,
        typed_c if typed_c is not None else limit_of(material, own, limits(kept["limits"])),
        melt_c,
        float(kept["margin_c"]),
    )


def ready(mould_made: MouldMade, melt_c: float | None) -> Gate:
    """Whether a mould that was made may be cast in now."""
    return gate(moulds.curing(db(), mould_made), datetime.now().astimezone(), melt_c is not None)


def let_through(content: Content, mould_made: MouldMade, product: Product, asked: BatchAsked) -> Temperatures:
    """The temperatures of a pour that may begin, or go on.

    A limit typed for a material nobody had given one is kept in Stores. What only asks has to be answered by
    a tick.

    Raises:
        Refused: the mould is not set, or not cured for hot material; the melt is over what the mould stands
            and that is not answered.
    """
    warmths = temperatures(product, content, asked)
    way = ready(mould_made, warmths.melt_c)
    if way.way == REFUSED:
        raise Refused("mould", product.name, way.says or "")
    if way.way == ASKS:
        require(bool(asked.get("early_yes")), "early_yes", "not answered", way.says or "")
    typed = asked.value("limit", "temperature", "the mould stands", "")
    warm = heat_of(content, mould_made, warmths.melt_c, typed)
    if warm is not None and not warm.stands:
        require(warm.over_c is not None, "limit", "", warm.says)
        require(
            bool(asked.get("heat_yes")),
            "melt",
            plainly(warmths.melt_c or 0.0, "temperature"),
            f"{tell(warm.says)}; let it cool, take another mould, or tick that you pour it all the same",
        )
    if typed is not None:
        stores.put_setting(
            db(),
            "heat",
            {
                "limits": {
                    **stores.setting(db(), "heat")["limits"],
                    material_of(content, mould_made)[0]: typed,
                }
            },
        )
    return warmths


def set_enough(batch_id: int | None, early: bool) -> None:
    """Whether a casting may be taken out: not while its demould clock runs, unless that is answered.

    Raises:
        Refused: the clock still runs; says until when.
    """
    clock = next(
        (
            row
            for row in mixes.running(db())
            if row.batch_id == batch_id and row.kind == "demould" and row.ends_at > now()
        ),
        None,
    )
    if clock is not None and not early:
        raise Refused(
            "demould",
            "",
            f"not before {when(clock.ends_at.astimezone(), datetime.now().astimezone())}: until then it is"
            " soft and tears or bends",
        )
