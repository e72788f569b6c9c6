"""The steps of a piece in the order of the bench, as data: where, how long, what follows, what to look out
for.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import asdict, dataclass, fields, replace
from typing import Any

from lamsik.core.cautions import of_metals
from lamsik.core.findings import Finding, finding
from lamsik.core.paints.dips import Dip, stop_of
from lamsik.core.paints.kinds import SIGNATURE
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.paint import BOTH
from lamsik.core.paints.roles import CLEARS, COLOURS, FITTED, GROUNDS, SEALS
from lamsik.core.paints.waiting import waits_h
from lamsik.core.paints.zones import PLUG, STOPPED, checks_of, zones_on
from lamsik.core.shapes.design import Design
from lamsik.core.trade.step_kinds import STEP_KINDS, Minutes, StepKind, minutes


@dataclass(frozen=True)
class Step:
    """One step of a route.

    Args:
        key: its name on this route.
        kind: which kind of step it is (see `step_kinds`).
        name, says: what it is called, and what to do: a finding until `words` has told it, then text.
        weigh: the stage that is weighed at its end.
        setup_min, each_min: hands-on time, once for all done together and for each [min].
        wait_h, window_h: least and longest wait before the next step [h].
        batch_key: pieces whose step has the same are done together; empty where each is for itself.
        cautions: what can hurt.
        points: what is ticked one by one before it counts as done (see `zones.CHECKS`).
    """

    key: str
    kind: str
    name: Finding | str
    says: Finding | str
    weigh: str | None = None
    setup_min: float = 0.0
    each_min: float = 0.0
    wait_h: float = 0.0
    window_h: float | None = None
    batch_key: str = ""
    cautions: tuple[str, ...] = ()
    points: tuple[str, ...] = ()

    @property
    def of(self) -> StepKind:
        """What is true of every step of its kind."""
        return STEP_KINDS[self.kind]


Route = tuple[Step, ...]

MAKING, READY, SHIPPED = "making", "ready", "shipped"


def stand(route: Sequence[Step], done: Collection[str]) -> str:
    """Where a piece stands, from every step of its route: shipped once all are done, ready once only what
    hands it over is left.
    """
    left = [step for step in route if step.key not in done]
    return SHIPPED if route and not left else READY if left and all(s.of.hands_over for s in left) else MAKING


def open_before(route: Sequence[Step], done: Collection[str], key: str) -> tuple[Step, ...]:
    """Steps before this one that are neither done nor left out: they come first, or are left out for a
    reason.
    """
    before = route[: [step.key for step in route].index(key)]
    return tuple(step for step in before if step.key not in done)


def content_of(route: Sequence[Step]) -> list[dict[str, Any]]:
    """A route as it is kept with a piece."""
    return [asdict(step) for step in route]


def from_content(rows: Sequence[Mapping[str, Any]]) -> Route:
    """A route that was kept. What a later version added has its default; what is not known is left out."""
    known = {field.name for field in fields(Step)}
    route = []
    for row in rows:
        values = {name: value for name, value in row.items() if name in known}
        listed = {name: tuple(values.get(name, ())) for name in ("cautions", "points")}
        route.append(Step(**{**values, **listed}))
    return tuple(route)


def steps(design: Design, own: Minutes | None = None) -> Route:
    """The route of one piece of this design, from its blank to shipping: what it is of says which.

    Args:
        design: what is made.
        own: the shop's own minutes by kind of step; the table's where it has none.
    """
    seals = [one for one in design.layers if one.does == SEALS]
    paints = [one for one in design.layers if one.does != SEALS]
    rows = [_body(design)]
    rows += [_coat(one, weigh="sealed" if one is seals[-1] else None) for one in seals]
    if _is_fitted(design):
        rows.append(_fit(design))
    rows.append(
        Step(
            "tub",
            "tub",
            finding("tub-test"),
            finding("float-and-compare"),
            batch_key="tub",
            cautions=("hooks",),
        )
    )
    zones = zones_on(design)
    if paints and any(zone.of.mask not in ("", PLUG) for zone in zones):
        rows.append(Step("mask", "mask", finding("masks-on"), finding("mask-what-stays-bare")))
    stop = {one.key: stop_of(one, zones, design.body.length_mm) for one in paints}
    hard_h = dict(zip((one.key for one in design.layers), waits_h(design.layers), strict=True))
    rows += [
        replace(
            _coat(one, "cleared" if one is paints[-1] else None, stop.get(one.key)), wait_h=hard_h[one.key]
        )
        for one in paints
    ]
    rows += [
        Step(
            "rig",
            "rig",
            finding("rings-and-hooks"),
            finding("fit-rings-and-hooks"),
            weigh="rigged",
            cautions=("hooks",),
        ),
        Step(
            "swim",
            "swim",
            finding("swim-test"),
            finding("tracks-straight"),
            batch_key="swim",
            cautions=("hooks",),
        ),
        Step(
            FINAL,
            FINAL,
            finding("final-check"),
            finding("tick-on-this-very-piece"),
            points=checks_of(zones),
        ),
        Step("pack", "pack", finding("photograph-and-pack"), finding("pack-bait")),
        Step("ship", "ship", finding("ship"), finding("note-the-parcel")),
    ]
    return timed(rows, own)


def timed(rows: Sequence[Step], own: Minutes | None = None) -> Route:
    """Steps with the minutes of their kinds."""
    of_kind = minutes(own)
    return tuple(
        replace(step, setup_min=of_kind[step.kind][0], each_min=of_kind[step.kind][1]) for step in rows
    )


def _is_fitted(design: Design) -> bool:
    """Whether anything is drilled or hung on by itself."""
    return bool(
        design.host.construction != "soft"
        or design.ballast
        or design.lip
        or any(placed.hung_on is None for placed in design.hardware)
    )


@dataclass(frozen=True)
class Made:
    """How a body of some construction is made: the kind of step, the findings of its name and of what to do,
    what can hurt.
    """

    kind: str
    name: str
    says: str
    cautions: tuple[str, ...]


MADE = {
    "wood": Made(
        "carve",
        "carve-the-body",
        "saw-and-round",
        ("wood_dust", "blades"),
    ),
    "foam": Made("cut", "shape-the-body", "cut-and-sand", ("blades",)),
    "cast": Made("pour", "cast-the-body", "cast-and-trim", ("isocyanate",)),
    "print": Made("print", "print-the-body", "print-and-clean", ("print_dust",)),
    "soft": Made("pour", "cast-the-body", "pour-hot", ("plastisol",)),
}
"""By construction."""
FOAMED = Made("pour", "cast-the-body", "foam-in-mould", ("isocyanate",))
"""A foam that is poured."""


def _made(design: Design) -> Made:
    poured_foam = design.host.construction == "foam" and design.host.source == "poured"
    return FOAMED if poured_foam else MADE[design.host.construction]


def _body(design: Design) -> Step:
    way, host = _made(design), design.host
    in_resin = host.construction == "print" and "resin" in host.name.lower()
    return Step(
        "carve",
        way.kind,
        finding(FOAMED.name if host.source == "poured" else way.name),
        finding(way.says, material=host.name),
        weigh="carved",
        batch_key=f"{way.kind}: {host.name}",
        cautions=("uv_resin",) if in_resin else way.cautions,
    )


def body_cautions(design: Design) -> tuple[str, ...]:
    """What can hurt while the body itself is made."""
    return _body(design).cautions


def _fit(design: Design) -> Step:
    if design.host.source == "poured" and design.host.construction == "soft":
        return Step(
            "fit",
            "fit",
            finding("hardware-step"),
            finding("see-cast-in"),
            weigh="ballasted",
            cautions=("hooks",),
        )
    return Step(
        "fit",
        "fit",
        finding("drill-ballast-hardware"),
        finding("drill-to-the-map"),
        weigh="ballasted",
        wait_h=12.0,
        cautions=(*of_metals(design.metals), "epoxy"),
    )


COAT, FINAL = "coat:", "check"
"""How the keys of steps begin that put a layer on."""
OF_EYES = {"kept": "mask-kept-eyes", "painted": "paint-both-eyes", "moulded": "paint-both-eyes"}
"""What is done of eyes that are not set on."""
OF_LAYERS = {SEALS: "seal", GROUNDS: "prime", COLOURS: "colour", FITTED: "eyes", CLEARS: "clear"}
"""The kind of step that puts a layer on, by what the layer does."""


def step_kind_of(layer: Layer) -> str:
    """The kind of step that puts a layer on."""
    return "stencil" if layer.is_counted else OF_LAYERS[layer.does]


def _coat(layer: Layer, weigh: str | None, stop: Dip | None = None) -> Step:
    """The coat that puts a layer on."""
    kind = step_kind_of(layer)
    return Step(
        f"{COAT}{layer.key}",
        kind,
        layer.name,
        layer.note if layer.note and stop is None else finding("one-sentence", says=_doing(layer, stop)),
        weigh,
        wait_h=layer.wait_h,
        window_h=layer.window_h,
        batch_key=f"{kind}: {layer.paint.colour if layer.does == COLOURS else layer.name}",
        cautions=(layer.paint.caution,) if layer.paint.caution else (),
        points=(STOPPED,) if stop is not None and not layer.intended else (),
    )


def _doing(layer: Layer, stop: Dip | None = None) -> Finding:
    if layer.mass_g is not None:
        return finding(OF_EYES.get(layer.eye, "set-eyes-level"))
    if layer.kind == SIGNATURE:
        return finding("sign-and-number")
    if stop is not None:
        end, zone = "nose" if stop.is_nose_first else "tail", stop.stop.kind
        return finding("dip-to", end=end, zone=zone, depth=stop.depth_mm)
    film = finding(
        "passes-of-film" if layer.passes > 1 else "dry-film", count=layer.passes, film=layer.film_um
    )
    return film if layer.place.side == BOTH else finding("on-one-side", film=film, side=layer.place.side)
