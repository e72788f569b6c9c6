"""Outlines in and out: SVG and DXF, our own unchanged, others by their units, transforms and names;
nothing in a file is run or fetched.
"""

import io

import ezdxf
import numpy as np
import pytest
from ezdxf import units as dxf_units

from lamsik.core.errors import Refused
from lamsik.core.shapes.blades import STARTING_BLADE as START
from lamsik.core.shapes.body import side_outline, top_outline
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.core.shapes.outlining import lines_of
from lamsik.documents.blades.document import BLADE, blade_of, content_of, is_blade
from lamsik.documents.body.document import to_design
from lamsik.drawings import blade as blade_pictures
from lamsik.drawings.svg import markup
from lamsik.formats import document_file, dxf, svg_outlines
from lamsik.web.shapes.make import outline_drawing
from tests.documents.test_body import document, full
from tests.refusing import refusing

BOX = "M0 0 H90 V20 H0 Z"


def svg(inner, attributes='width="100mm" height="60mm" viewBox="0 0 100 60"'):
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
        f" {attributes}>{inner}</svg>".encode()
    )


def size(points):
    return tuple(float(v) for v in np.ptp(points, axis=0))


class TestSvg:
    @pytest.mark.parametrize("form", ["slim", "popper", "antenna"])
    def test_our_own_comes_back_unchanged(self, form):
        content = full() if form == "slim" else document(form)
        found = svg_outlines.read(str(markup(outline_drawing(content))).encode())
        assert found.document == content
        assert lines_of(found.side).length_mm == pytest.approx(content["body"]["length_mm"], abs=0.02)

    def test_our_own_redrawn_elsewhere_is_read_by_its_lines(self):
        content = full()
        text = str(markup(outline_drawing(content)))
        at = text.index(' d="M') + 5
        found = svg_outlines.read((text[:at] + "0.5 0.5 L" + text[at:]).encode())
        assert found.document is None and found.top is not None
        body = to_design(content).body
        assert size(found.side) == pytest.approx(size(side_outline(body)), abs=0.6) and size(
            found.top
        ) == pytest.approx(size(top_outline(body)), abs=0.05)

    @pytest.mark.parametrize(
        ("inner", "attributes", "wanted"),
        [
            (f'<path d="{BOX}"/>', 'width="100mm" height="60mm" viewBox="0 0 100 60"', (90, 20)),
            (f'<path d="{BOX}"/>', 'width="10cm" height="6cm" viewBox="0 0 100 60"', (90, 20)),
            (f'<path d="{BOX}"/>', 'width="4in" height="2.4in" viewBox="0 0 100 60"', (91.44, 20.32)),
            (f'<path d="{BOX}"/>', 'width="100" height="60"', (90 * 25.4 / 96, 20 * 25.4 / 96)),
            ('<rect width="340" height="80"/>', "", (340 * 25.4 / 96, 80 * 25.4 / 96)),
            (
                f'<g transform="scale(0.5) translate(7 9)"><path d="{BOX}"/></g>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (45, 10),
            ),
            (
                f'<g transform="rotate(90)"><path d="{BOX}"/></g>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (20, 90),
            ),
            (
                '<ellipse cx="50" cy="20" rx="40" ry="10"/>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (80, 20),
            ),
            (
                '<path d="M0 10 C0 0 90 0 90 10 S0 20 0 10z"/>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (90, 15),
            ),
            (
                '<polygon points="0,0 90,0 90,20 0,20"/>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (90, 20),
            ),
            (
                f'<svg x="5" y="5" width="50" height="30" viewBox="0 0 100 60"><path d="{BOX}"/></svg>',
                'width="100mm" height="60mm" viewBox="0 0 100 60"',
                (45, 10),
            ),
        ],
    )
    def test_units_transforms_and_shapes_are_respected(self, inner, attributes, wanted):
        assert size(svg_outlines.read(svg(inner, attributes)).side) == pytest.approx(wanted, rel=2e-3)

    def test_named_outlines_win_over_size_and_unnamed_go_by_place(self):
        big, small = '<path id="{}" d="M0 0 H90 V30 H0 Z"/>', '<path id="{}" d="M0 40 H90 V55 H0 Z"/>'
        named = svg_outlines.read(svg(big.format("top-view") + small.format("Side")))
        assert size(named.side)[1] == pytest.approx(15, rel=1e-3) and size(named.top)[1] == pytest.approx(
            30, rel=1e-3
        )
        plain = svg_outlines.read(svg(small.format("a") + big.format("b")))
        assert size(plain.side)[1] == pytest.approx(30, rel=1e-3) and size(plain.top)[1] == pytest.approx(
            15, rel=1e-3
        )
        assert svg_outlines.read(svg('<path d="M0 0 H90 V30 H0 Z"/><path d="M2 2 h5 v5 h-5z"/>')).top is None

    @pytest.mark.parametrize(
        "path",
        ["M0 0 L9000 0 L9000 50 Z", "M0 0 L NaN 0 L 90 20 Z", "M0 0 L1e999 0 L90 20Z", "M0 0 H90 V0.1 H0 Z"],
    )
    def test_outlines_that_cannot_be_a_body_are_refused(self, path):
        with pytest.raises(Refused):
            lines_of(svg_outlines.read(svg(f'<path d="{path}"/>')).side)


def drawn(add, unit=dxf_units.MM):
    made = ezdxf.new()
    made.units = unit
    add(made.modelspace())
    stream = io.StringIO()
    made.write(stream)
    return stream.getvalue().encode()


BOX_POINTS = [(0, 0), (90, 0), (90, 20), (0, 20)]


class TestDxf:
    def layers(self, content):
        body = to_design(content).body
        return [
            DrawnLayer("SIDE", (side_outline(body, 121),)),
            DrawnLayer("TOP", (top_outline(body, 121) - [0, 40],)),
            DrawnLayer("HOLES", circles=((30.0, 0.0, 5.0),)),
        ]

    def test_our_own_comes_back_unchanged(self):
        content = full()
        assert dxf.read(dxf.write(self.layers(content), content)).document == content

    def test_our_own_redrawn_elsewhere_is_read_by_its_lines(self):
        content = full()
        shifted = self.layers(content)
        data = dxf.write([DrawnLayer("SIDE", (shifted[0].outlines[0] * [1.1, 1.0],)), *shifted[1:]], content)
        moved = dxf.write(shifted, content).replace(b"SIDE", b"SIDX")
        assert dxf.read(data).document == content
        assert dxf.read(moved).document is None

    @pytest.mark.parametrize(
        ("unit", "factor"), [(dxf_units.MM, 1.0), (dxf_units.CM, 10.0), (dxf_units.IN, 25.4), (0, 1.0)]
    )
    def test_units(self, unit, factor):
        points = np.array(BOX_POINTS) / factor
        found = dxf.read(drawn(lambda space: space.add_lwpolyline(points.tolist(), close=True), unit))
        assert size(found.side) == pytest.approx((90, 20))

    def test_splines_ellipses_and_layers(self):
        def add(space):
            space.add_ellipse((45, 40), major_axis=(45, 0), ratio=0.2, dxfattribs={"layer": "Top"})
            space.add_lwpolyline(
                [(0, 0, 0, 0, 0.2), (90, 0, 0, 0, 0.2)], close=True, dxfattribs={"layer": "side view"}
            )
            space.add_text("90 mm")

        found = dxf.read(drawn(add))
        assert size(found.top) == pytest.approx((90, 18), rel=1e-3) and size(found.side)[0] == pytest.approx(
            90, rel=2e-3
        )


class TestBladeFile:
    def test_a_blade_comes_back_unchanged_from_json_and_dxf(self):
        assert (
            blade_of(document_file.read(BLADE, document_file.write(BLADE, content_of(START)).encode()))
            == START
        )
        kept = dxf.read(dxf.write(blade_pictures.layers(START), BLADE.filed(content_of(START)))).document
        assert is_blade(kept) and blade_of(BLADE.brought_in(kept)) == START

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"version": 9}, "version"),
            ({"holes": []}, "just 2 rows"),
            ({"extra": 1}, "unknown field"),
            ({"width_mm": "wide"}, "width_mm"),
            ({"nose_deg": float("nan")}, "nose_deg"),
            ({"metal": "cheese"}, "metal"),
            ({"name": 5}, "a text"),
            ({"cup_mm": 9.5}, "half the width"),
        ],
    )
    def test_a_bad_one_is_refused_by_field(self, change, says):
        with refusing(says):
            BLADE.brought_in({**BLADE.filed(content_of(START)), **change})
