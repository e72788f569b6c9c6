"""What tests of moulds, pours and mixes do to a shop."""

import json
import re

from sqlmodel import select

from lamsik.store.database import session_of
from lamsik.store.tables import Batch, Pour
from tests import demo_rows as shop
from tests.lean import Known

STUBBY, MUDLARK = shop.STUBBY_FOUR_AT_ONCE, shop.MUDLARK_FOAM_PAIR
TADPOLE, PIKE = shop.WEED_TADPOLE_SOFT, shop.PIKE_LURE_OURS_ONLY
RESIN, FOAM, SILICONE, SOFT = (
    shop.CASTING_RESIN,
    shop.RIGID_FOAM_0_16,
    shop.MOULD_SILICONE_CONDENSATION,
    shop.SOFT_PLASTISOL,
)


def rows(visitor, table, *where):
    with session_of(visitor.http.application.extensions["engine"]) as session:
        return list(session.exec(select(table).where(*where).order_by(table.id)).all())


def state(visitor, key):
    page = visitor.get(f"/moulds/{key}").text
    found = json.loads(re.search(r'id="state">(.*?)</script>', page, re.S).group(1))
    return found | {"view": Known().read(found["view"])}


def live(visitor, key, *edits, **more):
    held = state(visitor, key)
    return visitor.send(
        f"/moulds/{key}/live",
        {
            "document": held["document"],
            "base": held["base"],
            "edits": list(edits),
            "mode": "settled",
            "save": True,
            **more,
        },
    )


def begun(visitor, mould=STUBBY, **form):
    visitor.post(f"/pours/begin/{mould}", {"product": str(RESIN), **form})
    return rows(visitor, Pour)[-1]


def ticked(visitor, pour):
    page = visitor.get(f"/pours/{pour.id}").text
    for name in re.findall(r'name="tick" value="([^"]+)" aria-pressed="false"', page):
        visitor.post(f"/pours/{pour.id}/tick", {"tick": name})


def mixed_g(row, part):
    return sum(line["grams"] for line in row.weighed if line["part"] == part)


def weighed_in(visitor, pour):
    """Tick all, and weigh every part just to its mark."""
    ticked(visitor, pour)
    visitor.post(f"/pours/{pour.id}/next")
    row = rows(visitor, Batch)[-1]
    for line in [*row.plan["rows"], *row.plan["extras"]]:
        visitor.post(f"/mixes/batch/{row.id}/weigh", {"part": line["part"], "grams": f"{line['grams']} g"})
    return row


def poured(visitor):
    pour = begun(visitor)
    visitor.post(f"/mixes/batch/{weighed_in(visitor, pour).id}/mixed")
    visitor.post(f"/pours/{pour.id}/next")
    return rows(visitor, Pour, Pour.id == pour.id)[0]
