"""The Shapes bench: what stands in the header, and where its pages are."""

from lamsik.web.shapes import blade_live, blades, bring, compare, family, joints, make, trace, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Shapes",
    "shapes.index",
    (
        views.blueprint,
        bring.blueprint,
        trace.blueprint,
        compare.blueprint,
        joints.blueprint,
        family.blueprint,
        make.blueprint,
        blades.blueprint,
        blade_live.blueprint,
    ),
)
