"""What a new shop starts with: a small stock of parts, metals, drills, waters, a scale, two schemes.

Masses are typical labels, marked as such until the maker weighs their own.
"""

from collections.abc import Iterator
from dataclasses import asdict

from sqlmodel import Session, select

from lamsik.core.materials import METALS, PLATES
from lamsik.core.paints.coats import Coat
from lamsik.store import documents
from lamsik.store.tables import Drill, Hardware, Instrument, ShopWater, SlugStock

STEEL = METALS["steel"]

HARDWARE = (
    # code, name, kind, g, outside share, reach mm, shank diameter and length in the body mm
    ("tie-s", "Line tie, screw eye 0.9 × 16", "line_tie", 0.14, 0.4, 3.0, 0.9, 16.0),
    ("tie-m", "Line tie, screw eye 1.2 × 22", "line_tie", 0.32, 0.4, 3.5, 1.2, 22.0),
    ("hgr-s", "Hook hanger, screw eye 0.9 × 13", "hanger", 0.11, 0.4, 2.5, 0.9, 13.0),
    ("hgr-m", "Hook hanger, screw eye 1.2 × 18", "hanger", 0.27, 0.4, 3.0, 1.2, 18.0),
    ("ring-4", "Split ring 4 mm", "ring", 0.05, 1.0, 0.0),
    ("ring-6", "Split ring 6 mm", "ring", 0.13, 1.0, 0.0),
    ("tre-10", "Treble hook size 10", "hook", 0.32, 1.0, 0.0),
    ("tre-8", "Treble hook size 8", "hook", 0.48, 1.0, 0.0),
    ("tre-6", "Treble hook size 6", "hook", 0.79, 1.0, 0.0),
    ("tre-4", "Treble hook size 4", "hook", 1.24, 1.0, 0.0),
    ("tre-2", "Treble hook size 2", "hook", 2.10, 1.0, 0.0),
    ("wire-1", "Through-wire 1.0 mm, bent", "wire", 0.75, 0.15, 0.0, 1.0, 0.0),
    ("pair-s", "Joint eyelets, pair 0.9 mm", "joint", 0.22, 1.0, 0.0, 0.9, 10.0),
    ("pin-1", "Joint pin 1.2 mm with loop", "joint", 0.35, 0.5, 0.0, 1.2, 12.0),
)

OTHERS = (
    # code, name, kind, g, material, g/cm³, outside share, diameter, length in the body, bore mm
    ("eyes-5", "Domed eyes 5 mm, pair", "eyes", 0.06, "acrylic", 1.19, 0.6, 5.0, 1.0, 0.0),
    ("rattle-5", "Rattle, glass 5 × 18", "rattle", 0.85, "glass", 2.2, 0.0, 5.0, 18.0, 0.0),
    ("tube-3", "Line tube 3.0 / 2.0 × 40", "tube", 0.14, "plastic", 0.95, 0.0, 3.0, 40.0, 2.0),
    ("skirt-s", "Silicone skirt, 20 strands", "skirt", 0.9, "silicone", 1.1, 1.0, 0.0, 0.0, 0.0),
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

SEAL = Coat(
    "seal1",
    "seal",
    "Seal, thinned epoxy",
    "#D9C08C",
    35,
    1.12,
    1.0,
    12,
    None,
    caution="epoxy",
    note="Two thin brushed coats, wiped; sand the raised grain between.",
)
PRIMER = Coat(
    "primer1",
    "primer",
    "White primer",
    "#F4F2EC",
    30,
    1.45,
    1.0,
    2,
    None,
    note="Two light passes; scuff when dry.",
)
EYES = Coat(
    "eyes1",
    "eyes",
    "Eyes, 5 mm",
    "#E8C33A",
    0,
    1.3,
    0.0,
    0,
    None,
    mass_g=0.06,
    reach_share=0.27,
    caution="",
    note="One each side, level with the nose line.",
)
CLEAR = Coat(
    "clear1",
    "clear",
    "Clear, slow epoxy",
    "#FFFFFF",
    120,
    1.12,
    1.0,
    24,
    36,
    caution="epoxy",
    note="On the turning wheel until it gels; hang tail up.",
)


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
    coats = [SEAL, PRIMER, Coat("base1", "base", "Base", base, 15, wait_h=1)]
    if belly:
        coats.append(Coat("base2", "base", "Flank mist", belly, 6, wait_h=1, cover_share=0.6))
    coats.append(Coat("fade1", "fade", "Back fade", back, 12, cover_share=0.5, reach_share=0.55, wait_h=1))
    if bars:
        coats.append(
            Coat(
                "bars1",
                "bars",
                "Bars through a comb mask",
                bars,
                10,
                cover_share=0.2,
                reach_share=0.6,
                count=7,
                wait_h=2,
            )
        )
    if spots:
        coats.append(Coat("spots1", "spots", "Spots", spots, 10, cover_share=0.06, count=9, wait_h=2))
    coats += [Coat(**{**asdict(EYES), "colour": eye}), CLEAR]
    return {"name": name, "coats": [asdict(coat) for coat in coats]}


def _metal() -> Iterator[Hardware]:
    for code, name, kind, mass, outside, reach, *shank in HARDWARE:
        wire, deep = shank or (0.0, 0.0)
        yield Hardware(
            code=code,
            name=name,
            kind=kind,
            mass_g=mass,
            density_g_cm3=STEEL,
            outside_share=outside,
            reach_mm=reach,
            wire_mm=wire,
            shank_mm=deep,
        )


def _others() -> Iterator[Hardware]:
    for code, name, kind, mass, material, density, outside, wire, deep, bore in OTHERS:
        yield Hardware(
            code=code,
            name=name,
            kind=kind,
            mass_g=mass,
            density_g_cm3=density,
            outside_share=outside,
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
