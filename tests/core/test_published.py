"""The trade's tables against published figures: solid densities of the elements and alloys, woods, resins."""

import pytest

from lamsik.core.floats.shotting import LEAD_G_CM3
from lamsik.core.materials import BODY_MATERIALS, EPOXY_FILLER_G_CM3, METALS, PLATES
from lamsik.core.mixes.filler import MICROSPHERE_G_CM3, RESIN_G_CM3
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.tank.line import FRICTION, LINE_G_CM3, NORMAL_DRAG
from lamsik.core.tank.parts import FILM_G_CM3
from lamsik.core.weighing.inwater import AIR_G_CM3

PUBLISHED = [
    # metals at room temperature: any table of the elements, alloys by their data sheets
    (METALS["lead"], 11.3, 11.4),
    (METALS["tungsten"], 17.0, 19.0),
    (METALS["tin"], 7.26, 7.32),
    (METALS["bismuth"], 9.75, 9.82),
    (METALS["steel"], 7.75, 7.9),
    (METALS["brass"], 8.4, 8.7),
    (METALS["copper"], 8.92, 8.97),
    (METALS["aluminium"], 2.68, 2.72),
    (LEAD_G_CM3, 11.3, 11.4),
    # plastics, glass cloth, resins
    (PLATES["polycarbonate"], 1.19, 1.22),
    (PLATES["circuit board"], 1.8, 1.95),
    (PLATES["steel"], 7.75, 7.9),
    (EPOXY_FILLER_G_CM3, 1.1, 1.2),
    (FILM_G_CM3, 1.1, 1.3),
    (RESIN_G_CM3, 1.03, 1.1),
    (LINE_G_CM3, 1.12, 1.15),
    # powders: grains as the solid, heaps between a third and two thirds of it
    (FILLERS["brass powder"].true_g_cm3, 8.4, 8.7),
    (FILLERS["brass powder"].bulk_g_cm3, 2.8, 4.2),
    (FILLERS["aluminium powder"].true_g_cm3, 2.68, 2.72),
    (FILLERS["aluminium powder"].bulk_g_cm3, 0.9, 1.4),
    (FILLERS["stone powder"].true_g_cm3, 2.6, 2.8),
    (FILLERS["stone powder"].bulk_g_cm3, 1.1, 1.6),
    (FILLERS["hollow microspheres"].true_g_cm3, 0.12, 0.18),
    (FILLERS["hollow microspheres"].bulk_g_cm3, 0.07, 0.11),
    (MICROSPHERE_G_CM3, 0.12, 0.18),
    (AIR_G_CM3, 0.00118, 0.00125),
    # a long cylinder across the flow and along it, at the Reynolds numbers of a line
    (NORMAL_DRAG, 1.0, 1.3),
    (FRICTION, 0.01, 0.03),
]


@pytest.mark.parametrize(("figure", "low", "high"), PUBLISHED)
def test_a_figure_of_the_trade_is_as_published(figure, low, high):
    assert low <= figure <= high


@pytest.mark.parametrize(
    ("name", "low", "high"),
    [
        ("balsa", 0.1, 0.2),
        ("paulownia", 0.25, 0.32),
        ("red cedar", 0.32, 0.4),
        ("basswood", 0.38, 0.5),
        ("poplar", 0.4, 0.5),
        ("jelutong", 0.42, 0.48),
        ("maple", 0.63, 0.75),
        ("beech", 0.65, 0.75),
        ("bamboo", 0.6, 0.8),
        ("cast urethane", 1.03, 1.1),
        ("printed resin", 1.1, 1.2),
        ("printed PLA", 1.22, 1.26),
    ],
)
def test_a_wood_or_plastic_is_as_heavy_as_published_and_spreads_as_its_range(name, low, high):
    row = BODY_MATERIALS[name]
    assert low <= row.density_g_cm3 <= high
    assert 0.2 < 4 * row.spread_g_cm3 / (high - low) < 1.9
