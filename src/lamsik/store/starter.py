"""What a new shop starts with: a small stock of parts, metals, drills, waters, a scale, two schemes.

Masses are typical labels, marked as such until the maker weighs their own.
"""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from sqlmodel import Session, select

from lamsik.core.materials import METALS, PART_MATERIALS, PLATES
from lamsik.core.paints.layers import Layer, begun
from lamsik.core.paints.place import Place
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.documents.schemes.document import of_layers
from lamsik.store import documents
from lamsik.store.tables import Drill, Hardware, Instrument, ShopWater, SlugStock

STEEL = METALS["steel"]

HARDWARE = (
    # code, name, kind, g, reach mm, shank diameter and length in the body mm
    ("tie-s", "Line tie, screw eye 0.9 × 16", "line_tie", 0.14, 3.0, 0.9, 16.0),
    ("tie-m", "Line tie, screw eye 1.2 × 22", "line_tie", 0.32, 3.5, 1.2, 22.0),
    ("hgr-s", "Hook hanger, screw eye 0.9 × 13", "hanger", 0.11, 2.5, 0.9, 13.0),
    ("hgr-m", "Hook hanger, screw eye 1.2 × 18", "hanger", 0.27, 3.0, 1.2, 18.0),
    ("ring-4", "Split ring 4 mm", "ring", 0.05, 0.0),
    ("ring-6", "Split ring 6 mm", "ring", 0.13, 0.0),
    ("tre-10", "Treble hook size 10", "hook", 0.32, 0.0),
    ("tre-8", "Treble hook size 8", "hook", 0.48, 0.0),
    ("tre-6", "Treble hook size 6", "hook", 0.79, 0.0),
    ("tre-4", "Treble hook size 4", "hook", 1.24, 0.0),
    ("tre-2", "Treble hook size 2", "hook", 2.10, 0.0),
    ("wire-1", "Through-wire 1.0 mm, bent", "wire", 0.75, 0.0, 1.0, 0.0),
    ("pair-s", "Joint eyelets, pair 0.9 mm", "joint", 0.22, 0.0, 0.9, 10.0),
    ("pin-1", "Joint pin 1.2 mm with loop", "joint", 0.35, 0.0, 1.2, 12.0),
)
HALF_OUTSIDE = {"pin-1": 0.5}
"""How much of a part is outside the body where that is otherwise than its kind has it."""

OTHERS = (
    # code, name, kind, g, material, diameter, length in the body, bore mm
    ("eyes-5", "Domed eyes 5 mm, pair", "eyes", 0.06, "acrylic", 5.0, 1.0, 0.0),
    ("rattle-5", "Rattle, glass 5 × 18", "rattle", 0.85, "glass", 5.0, 18.0, 0.0),
    ("tube-3", "Line tube 3.0 / 2.0 × 40", "tube", 0.14, "plastic", 3.0, 40.0, 2.0),
    ("skirt-s", "Silicone skirt, 20 strands", "skirt", 0.9, "silicone", 0.0, 0.0, 0.0),
)

LIPS = (
    # code, name, plate, width, length, thickness mm, angle °
    ("lip-s", "Shallow lip 12 × 10, polycarbonate", "polycarbonate", 12.0, 10.0, 1.5, 62.0),
    ("lip-m", "Lip 14 × 16, polycarbonate", "polycarbonate", 14.0, 16.0, 1.5, 40.0),
    ("lip-d", "Deep lip 20 × 30, circuit board", "circuit board", 20.0, 30.0, 1.6, 22.0),
)

SLUGS = (
    ("lead", "rod", 5.0),
    ("lead", "rod", 6.0),
    ("lead", "rod", 8.0),
    ("tungsten", "rod", 4.0),
    ("lead", "ball", 5.5),
    ("lead", "ball", 7.0),
    ("steel", "ball", 6.0),
    ("tin", "rod", 6.0),
)

DRILLS = (0.7, 0.8, 1.0, 1.5, 3.0, 4.0, 4.5, 5.0, 5.5, 6.0, 6.5, 7.0, 8.0, 8.5, 10.0)

WATERS = (
    ("fresh water", 12.0, 0.0),
    ("summer pond", 20.0, 0.0),
    ("brackish water", 10.0, 6.0),
    ("sea water", 9.0, 35.0),
)

SEAL = replace(begun("seal", "seal1"), note="Two thin brushed coats, wiped; sand the raised grain between.")
PRIMER = replace(begun("primer", "primer1"), note="Two light passes; scuff when dry.")
EYES = replace(
    begun("eyes", "eyes1"),
    place=replace(begun("eyes", "eyes1").place, size_percent=27.0),
    note="One each side, level with the nose line.",
)
CLEAR = replace(begun("clear", "clear1"), note="On the turning wheel until it gels; hang tail up.")


def scheme(
    name: str,
    base: str,
    back: str,
    bars: str | None = None,
    spots: str | None = None,
    belly: str | None = None,
    eye: str = "#E8C33A",
) -> dict[str, object]:
    """A scheme's content: seal, primer, base, fade, marks, eyes, clear."""
    layers = [SEAL, PRIMER, _of("base", "base1", base)]
    if belly:
        mist = _of("base", "base2", belly, name="Flank mist", film_um=6.0, place=Place(cover_percent=60.0))
        layers.append(mist)
    layers.append(_of("fade", "fade1", back))
    if bars:
        layers.append(_of("bars", "bars1", bars, name="Bars through a comb mask", wait_h=2.0))
    if spots:
        layers.append(_of("spots", "spots1", spots, wait_h=2.0))
    layers += [replace(EYES, paint=replace(EYES.paint, colour=eye)), CLEAR]
    return of_layers(name, layers)


def _of(kind: str, key: str, colour: str, **more: Any) -> Layer:
    """A layer of a kind in a colour."""
    layer = replace(begun(kind, key), **more)
    return replace(layer, paint=replace(layer.paint, colour=colour))


def _metal() -> Iterator[Hardware]:
    for code, name, kind, mass, reach, *shank in HARDWARE:
        wire, deep = shank or (0.0, 0.0)
        yield Hardware(
            code=code,
            name=name,
            kind=kind,
            mass_g=mass,
            density_g_cm3=STEEL,
            outside_share=HALF_OUTSIDE.get(code, PART_KINDS[kind].outside_share),
            reach_mm=reach,
            wire_mm=wire,
            shank_mm=deep,
        )


def _others() -> Iterator[Hardware]:
    for code, name, kind, mass, material, wire, deep, bore in OTHERS:
        yield Hardware(
            code=code,
            name=name,
            kind=kind,
            mass_g=mass,
            density_g_cm3=PART_MATERIALS[material],
            outside_share=PART_KINDS[kind].outside_share,
            material=material,
            wire_mm=wire,
            shank_mm=deep,
            bore_mm=bore,
        )


def _lips() -> Iterator[Hardware]:
    for code, name, plate, width, length, thick, angle in LIPS:
        yield Hardware(
            code=code,
            name=name,
            kind="lip",
            density_g_cm3=PLATES[plate],
            width_mm=width,
            length_mm=length,
            thickness_mm=thick,
            angle_deg=angle,
        )


def stock(session: Session) -> None:
    """Fill an empty shop with its first stock; a shop that has parts is left alone."""
    if session.exec(select(Hardware)).first() is not None:
        return
    session.add_all([*_metal(), *_others(), *_lips()])
    for metal, form, size in SLUGS:
        name = f"{metal} {form} {size:g} mm"
        session.add(
            SlugStock(
                code=name, name=name, form=form, metal=metal, density_g_cm3=METALS[metal], diameter_mm=size
            )
        )
    for size in DRILLS:
        session.add(Drill(diameter_mm=size))
    for name, temperature, salinity in WATERS:
        session.add(ShopWater(name=name, temperature_c=temperature, salinity_psu=salinity))
    session.add(Instrument(name="Pocket scale 0.1 g", step_g=0.1, span_g=500.0))
    session.add(Instrument(name="Fine scale 0.01 g", step_g=0.01, span_g=100.0))
    documents.create(session, "scheme", "S-001", scheme("Silver fry", "#D6DEE2", "#4D6470"))
    documents.create(
        session,
        "scheme",
        "S-002",
        scheme("Barred perch", "#C9B458", "#3B5B45", bars="#22332B", belly="#E6D9A0", eye="#D9481C"),
    )
    session.flush()
