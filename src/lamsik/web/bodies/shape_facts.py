"""Rows and figures of the Shapes bench: what a body measures, what is on it, its joints and segments."""

from lamsik.core.quantities import give_or_take, said
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement, seat_of
from lamsik.core.shapes.inside import pour_volume_ml
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.solid import kerf_ml
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.mass import NOTHING
from lamsik.core.tank.printed import by_metal, sink_words, weak_hinges
from lamsik.core.tank.running import lip_runs
from lamsik.core.tank.segments import Group, group_verdicts
from lamsik.web.bodies.shape_view import (
    Figure,
    HardwareRow,
    InsideRow,
    JointRow,
    LipRow,
    MetalRow,
    Metals,
    SegmentMaterial,
    SegmentRow,
)
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import edit
from lamsik.words.shapes import JOINTS
from lamsik.words.tell import tell
from lamsik.words.verdict import posture, sentence

MOVABLE = ("belly", "back", "flank", "inside")


def body_facts(outcome: Outcome) -> list[Fact]:
    """Volume, skin, blank and finished mass, each with how it came about."""
    shape, design = outcome.solid, outcome.design
    host, blank = design.host, next(part for part in outcome.budget.parts if part.key == "host")
    how = (
        "The closed mesh, exactly as it was brought in."
        if design.body.skin
        else "Section areas added up along the length (Gauss quadrature of the curve as drawn)."
    )
    if design.body.joints:
        how += f" The {len(design.body.joints)} saw cuts take {said(kerf_ml(design.body), 'volume')}."
    blank_how = (
        f"{said(shape.volume_ml, 'volume')} × {said(host.density_g_cm3, 'density')} {host.name},"
        f" {give_or_take('mass', blank.sd_g)} between sticks."
    )
    if design.shell or design.pours or design.cavities or design.segment_hosts:
        blank_how = (
            f"{said(shape.volume_ml, 'volume')} × {said(host.density_g_cm3, 'density')} {host.name}, less"
            " what is hollow,"
            f" with what is poured or closed in; {give_or_take('mass', blank.sd_g)}."
        )
    return [
        Fact("volume", "Body volume", said(shape.volume_ml, "volume"), how),
        Fact(
            "area",
            "Surface to coat",
            said(shape.area_mm2 / 100, "area"),
            "The skin of the same solid, end and joint faces included.",
        ),
        Fact(
            "blank",
            "Carved blank" if host.construction == "wood" else "Blank",
            said(outcome.budget.up_to("carved"), "mass", 1),
            blank_how,
            True,
        ),
        Fact(
            "mass",
            "Finished bait",
            said(outcome.budget.mass_g, "mass", 1),
            "All parts, coats and allowances added; see the Tank for each.",
            True,
        ),
    ]


def hardware_row(placed: Placement, design: Design) -> HardwareRow:
    """A part on the body as a row: name, mass, where, how it is taken off."""
    item, key = placed.item, placed.key
    host = next((p for p in design.hardware if p.key == placed.hung_on), None)
    seat = seat_of(design.hardware, placed)
    return HardwareRow(
        key=key,
        name=item.name,
        mass=said(item.mass_g, "mass"),
        place=f"on the {seat} {host.item.kind.replace('_', ' ')}" if host else placed.seat,
        estimate=not item.weighed,
        path=f"hardware.{key}.x_mm",
        movable=not host and placed.seat in MOVABLE,
        says=f"{item.name} distance from the nose",
        up_path=f"hardware.{key}.up_mm",
        high=not host and placed.seat in ("flank", "inside"),
        up_says=f"{item.name} height over the belly line",
        remove=edit("remove", group="hardware", key=key),
        remove_says=f"Take off {item.name}, {seat}",
    )


def lip_row(design: Design) -> LipRow | None:
    """The lip in words: what its angle does; None without one."""
    if design.lip is None:
        return None
    angle = design.lip.angle_deg
    return LipRow(f"{said(angle, 'angle', 0)} to the body axis, {tell(lip_runs(angle))}")


def joint_row(joint: Joint) -> JointRow:
    """A joint as a row with the paths of its figures."""
    path = f"joints.{joint.key}"
    return JointRow(
        key=joint.key,
        x=f"{path}.x_mm",
        slant=f"{path}.slant_deg",
        kerf=f"{path}.kerf_mm",
        hinge=f"{path}.hinge_mm",
        is_hinge=joint.kind == "hinge",
        kind_path=f"{path}.kind",
        says=JOINTS[joint.kind],
        name=f"Joint at {said(joint.x_mm, 'length')}",
        remove=edit("remove", group="joints", key=joint.key),
        remove_says=f"Take the joint at {said(joint.x_mm, 'length')} away",
    )


def segment_rows(outcome: Outcome) -> list[SegmentRow]:
    """Each group of segments with its own verdict; empty without joints."""
    own = dict(outcome.design.segment_hosts)
    rows = []
    for group in group_verdicts(outcome.design, outcome.budget, outcome.drag, outcome.rules.bands):
        rows.append(
            SegmentRow(
                key="-".join(group.keys),
                name=group.name.capitalize(),
                volume=said(group.volume_ml, "volume"),
                mass=said(group.budget.mass_g, "mass"),
                net=said(group.hanging.net_g, "mass", sign=True),
                says=sentence(group.verdict),
                chain=_chain(group),
                holds=_holds(group),
                materials=[
                    SegmentMaterial(key, f"Segment {key[1:]} of", own[key].name if key in own else "")
                    for key in group.keys
                ],
            )
        )
    return rows


def _holds(group: Group) -> str:
    """The parts and the ballast that belong to the group, each once."""
    loose = [
        part.name
        for part in group.budget.parts
        if part.mass_g > 0
        and part.film_ml == 0
        and part.key.split(":")[0] not in ("host", "glue", "fill", "segment", "allow")
    ]
    counts = {name: loose.count(name) for name in loose}
    return (
        "Holds "
        + ", ".join(f"{count} × {name}" if count > 1 else name for name, count in counts.items())
        + "."
        if counts
        else "Holds no part and no ballast."
    )


def _chain(group: Group) -> str:
    """How the group lies in the floating chain."""
    if group.chained is None:
        return ""
    words = posture(group.chained)
    alone = posture(group.surface[0].attitude) if group.surface else "sinks"
    return f"In the chain afloat it lies {words}; by itself {alone}."


def inside_rows(design: Design) -> list[InsideRow]:
    """Poured ends and chambers as rows with the paths of their figures."""
    rows = []
    for pour in design.pours:
        path, (volume, _) = f"pours.{pour.key}", pour_volume_ml(design.body, pour)
        rows.append(
            _inside(
                "pours",
                pour.key,
                f"{pour.name}, poured",
                f"{said(volume, 'volume')}, {said(volume * pour.density_g_cm3, 'mass', 1)}; tilt leans"
                " its face aft at the top",
                (
                    ("From", f"{path}.from_mm"),
                    ("To", f"{path}.to_mm"),
                    ("Density", f"{path}.density_g_cm3"),
                    ("Tilt", f"{path}.tilt_deg"),
                ),
            )
        )
    for cavity in design.cavities:
        path = f"cavities.{cavity.key}"
        rows.append(
            _inside(
                "cavities",
                cavity.key,
                f"{cavity.count} × {cavity.slug.name}",
                f"{said(cavity.volume_ml, 'volume')}, {said(cavity.mass_g, 'mass', 1)}",
                (
                    ("Balls", f"{path}.count"),
                    ("At", f"{path}.x_mm"),
                    ("Over belly", f"{path}.up_mm"),
                    ("Play", f"{path}.play_mm"),
                ),
            )
        )
    return rows


def _inside(group: str, key: str, name: str, says: str, inputs: tuple[tuple[str, str], ...]) -> InsideRow:
    return InsideRow(
        key=key,
        name=name,
        says=says,
        inputs=[Figure(path, label, path) for label, path in inputs],
        remove=edit("remove", group=group, key=key),
        remove_says=f"Take away {name}",
    )


def metals(outcome: Outcome) -> Metals:
    """The same chambers with each metal, side by side, and what to know before printing."""
    rows = by_metal(outcome.design, NOTHING)
    table = [
        MetalRow(
            key=row.metal,
            metal=row.metal,
            balls=said(row.balls_g, "mass", 1),
            mass=said(row.mass_g, "mass", 1),
            water=(
                f"sinks with {said(row.in_water_g, 'mass', 1)}"
                if row.net_g < 0
                else f"floats, {said(row.net_g, 'mass', 1)} of lift"
            ),
        )
        for row in rows
    ]
    return Metals(table, bool(rows), tell(sink_words(outcome.design, rows)))


def hinge_words(design: Design, limit_mm: float) -> list[str]:
    """Printed hinges that will fail early."""
    return [
        f"the hinge at {said(joint.x_mm, 'length', 0)} is {said(joint.hinge_mm, 'length')} thick: under"
        f" {said(limit_mm, 'length')} it fails"
        " early"
        for joint in weak_hinges(design, limit_mm)
    ]
