"""What was changed from one revision of a design to the next, in words: a lip trim or a moved tie keeps
its before and after.
"""

from collections.abc import Callable

from lamsik.core.paints.roles import CLEARS
from lamsik.core.quantities import numeral, said
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Lip, Placement

MOST = 600


def differences(before: Design, after: Design) -> tuple[str, ...]:
    """Each thing that differs, with what it was and what it is."""
    rows: list[str] = []
    for part in _PARTS:
        rows += part(before, after)
    return tuple(rows)


def note(before: Design, after: Design) -> str:
    """The differences as one line, shortened."""
    text = "; ".join(differences(before, after))
    return text if len(text) <= MOST else f"{text[: MOST - 1]}…"


def lip_words(lip: Lip | None) -> str:
    """A lip by what is trimmed on it: width, length, angle, squareness."""
    if lip is None:
        return "none"
    square = (
        "square"
        if abs(lip.square_deg) < 0.05
        else f"{said(lip.square_deg, 'angle', sign=True)} out of square".replace("-", "−")
    )
    return (
        f"{said(lip.width_mm, 'length')} wide, {said(lip.length_mm, 'length')} long,"
        f" {said(lip.angle_deg, 'angle', 0)} to the axis, {square}"
    )


def tie_words(tie: Placement | None) -> str:
    """A line tie by where it is."""
    if tie is None:
        return "none"
    place = {
        "nose": "on the nose",
        "tail": "on the tail",
        "lip": f"on the lip, {said(tie.x_mm, 'length')} out",
    }.get(tie.seat, f"on the {tie.seat}, {said(tie.x_mm, 'length')} from the nose")
    return f"{place} ({tie.item.name})"


def _tie(design: Design) -> Placement | None:
    return next((p for p in design.hardware if p.item.kind == "line_tie"), None)


def _changed(what: str, was: str, now: str) -> list[str]:
    return [f"{what}: {was} → {now}"] if was != now else []


def _lips(before: Design, after: Design) -> list[str]:
    rows = _changed("lip", lip_words(before.lip), lip_words(after.lip))
    if (
        before.lip
        and after.lip
        and abs(before.lip.x_mm - after.lip.x_mm) > 0.05
        and before.body.length_mm == after.body.length_mm
    ):
        rows += [
            f"lip moved: {numeral(before.lip.x_mm, 'length')} → {said(after.lip.x_mm, 'length')} from"
            " the nose"
        ]
    return rows + _changed("line tie", tie_words(_tie(before)), tie_words(_tie(after)))


def _body(before: Design, after: Design) -> list[str]:
    sizes = (
        f"{numeral(d.body.length_mm, 'length')} × {numeral(d.body.depth_mm, 'length')} ×"
        f" {said(d.body.width_mm, 'length')}"
        for d in (before, after)
    )
    rows = _changed("size", *sizes)
    shares = [_lines_of(d.body) for d in (before, after)]
    rows += ["lines changed"] if shares[0] != shares[1] else []
    exponents = (
        f"{said(d.body.upper_exponent, 'number')} above, {said(d.body.lower_exponent, 'number')} below"
        for d in (before, after)
    )
    rows += _changed("section", *exponents) + _changed(
        "made of", *(f"{d.host.name} {said(d.host.density_g_cm3, 'density')}" for d in (before, after))
    )
    rows += _changed("joints", *(_joints(d) for d in (before, after)))
    rows += _changed("hollow", *(_hollow(d) for d in (before, after)))
    return rows + _changed("source", before.source.describe(), after.source.describe())


def _lines_of(body: Body) -> tuple[object, ...]:
    """The lines in proportion: a mere change of size is none of shape."""
    tall, wide = max(body.depth_mm, 1e-9), max(body.width_mm, 1e-9)
    rows = [
        (c.shares, tuple(round(v / size, 4) for v in c.values_mm))
        for c, size in ((body.top, tall), (body.bottom, tall), (body.half_width, wide))
    ]
    return (
        *rows,
        (
            (body.widest.shares, tuple(round(v / tall, 4) for v in body.widest.values_mm))
            if body.widest
            else None
        ),
        body.skin.digest if body.skin else None,
    )


def _joints(design: Design) -> str:
    hosts = dict(design.segment_hosts)
    rows = [
        f"{j.kind} at {said(j.x_mm, 'length')}, slant {said(j.slant_deg, 'angle', 0)}, kerf"
        f" {said(j.kerf_mm, 'length')}"
        for j in design.body.joints
    ]
    rows += [f"segment {key[1:]} in {host.name}" for key, host in hosts.items()]
    return ", ".join(rows) or "none"


def _hooks(before: Design, after: Design) -> list[str]:
    def named(design: Design) -> str:
        return ", ".join(p.item.name for p in design.hardware if p.item.kind == "hook") or "none"

    def others(design: Design) -> str:
        return ", ".join(
            p.item.name + (f" at {said(p.x_mm, 'length')}" if p.seat == "belly" and not p.hung_on else "")
            for p in design.hardware
            if p.item.kind not in ("hook", "line_tie")
        )

    return _changed("hooks", named(before), named(after)) + _changed(
        "hardware", others(before), others(after)
    )


def _ballast(before: Design, after: Design) -> list[str]:
    def holes(design: Design) -> str:
        rows = [
            f"{said(h.mass_g, 'mass', 1)} {h.slug.name} at {said(h.x_mm, 'length')}" for h in design.ballast
        ]
        rows += [
            f"{p.name} {numeral(p.from_mm, 'length')} to {said(p.to_mm, 'length')}" for p in design.pours
        ]
        rows += [f"{c.count} × {c.slug.name} at {said(c.x_mm, 'length')}" for c in design.cavities]
        return ", ".join(rows) or "none"

    return _changed("ballast", holes(before), holes(after))


def _layers(before: Design, after: Design) -> list[str]:
    def clears(design: Design) -> str:
        return str(sum(one.does == CLEARS for one in design.layers))

    rows = _changed("clear coats", clears(before), clears(after))
    painted = [tuple(one for one in d.layers if one.does != CLEARS) for d in (before, after)]
    return rows + (["scheme changed"] if painted[0] != painted[1] else [])


def _wishes(before: Design, after: Design) -> list[str]:
    rows = _changed("water", before.water.describe(), after.water.describe())
    rows += ["wanted behaviour changed"] if before.want != after.want else []
    rows += ["allowances changed"] if before.allowances != after.allowances else []
    rows += ["trial weights changed"] if before.trials != after.trials else []
    was, now = (
        f"{said(d.drag, 'number')} ({d.drag_source})" if d.drag is not None else "the shop's"
        for d in (before, after)
    )
    return rows + _changed("C_d", was, now) + _changed("name", before.name, after.name)


_PARTS: tuple[Callable[[Design, Design], list[str]], ...] = (_lips, _body, _hooks, _ballast, _layers, _wishes)


def _hollow(design: Design) -> str:
    shell = design.shell
    if shell is None:
        return "no"
    round_it = f", {said(shell.around_mm, 'length')} round what sits in it" if shell.around_mm else ""
    return f"{said(shell.wall_mm, 'length')} wall{round_it}, {shell.fill} inside"
