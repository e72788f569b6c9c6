"""What is said beside a step, and where a part is said to be."""

import pytest

from lamsik.core.cautions import of_metals
from lamsik.core.route.steps import steps
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.hardware import Placement, seat_of
from tests.bodies import LEAD_ROD, TUNGSTEN, bait


@pytest.mark.parametrize(
    ("metals", "keys"),
    [
        ((), ()),
        (("lead",), ("lead",)),
        (("tungsten",), ("metal_dust",)),
        (("lead", "brass"), ("lead", "metal_dust")),
    ],
)
def test_lead_is_cautioned_where_there_is_lead(metals, keys):
    assert of_metals(metals) == keys


@pytest.mark.parametrize(("slug", "said"), [(LEAD_ROD, True), (TUNGSTEN, False)])
def test_the_step_of_a_bait_says_lead_only_of_lead(slug, said):
    design = bait(ballast=(Hole("b1", slug, 2.0, 32.5, 6.0),))
    assert ("lead" in next(step for step in steps(design) if step.key == "fit").cautions) is said


def test_a_hook_on_a_ring_on_a_hanger_is_where_the_hanger_is():
    item = bait().hardware[0].item
    chain = (
        Placement("h", item, "tail", 0.0),
        Placement("r", item, "belly", 0.0, hung_on="h"),
        Placement("k", item, "belly", 0.0, hung_on="r"),
    )
    assert [seat_of(chain, placed) for placed in chain] == ["tail"] * 3
    loop = (Placement("a", item, "nose", 0.0, hung_on="b"), Placement("b", item, "belly", 0.0, hung_on="a"))
    assert seat_of(loop, loop[0]) in ("nose", "belly")  # a circle ends
