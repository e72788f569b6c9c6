"""Every kind of layer begins as a coat, is drawn, and can be put on a scheme."""

import pytest

from lamsik.core.paints.coats import Coat, dry_mass_g
from lamsik.core.paints.layers import FITTED, KINDS
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import SCHEME, blank, coats_of
from lamsik.drawings.ink import pen_for
from lamsik.drawings.paint import DRAWN, painted
from tests.bodies import bait


def test_every_kind_has_its_drawing():
    assert set(DRAWN) == set(KINDS)


@pytest.mark.parametrize("kind", KINDS.values(), ids=KINDS)
def test_one_begins_weighs_and_is_seen(kind):
    coat = Coat("c1", kind.name, **kind.start)
    assert coat.does == kind.does and (coat.mass_g is not None) is (kind.does == FITTED)
    assert 0 < dry_mass_g(coat, 9000.0) < 3 and (coat.count > 0) is kind.is_counted
    bare, on = (painted(bait(coats=coats), pen_for(90.0, 880)) for coats in ((), (coat,)))
    assert bare != on
    rows = coats_of(apply(SCHEME, blank("x"), {"do": "add", "role": kind.name}, None))
    assert [row.role for row in rows].count(kind.name) == [row["role"] for row in blank("x")["coats"]].count(
        kind.name
    ) + 1
