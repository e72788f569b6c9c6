"""A design: one body with its material, hardware, ballast, layers of paint, water and wanted behaviour."""

from dataclasses import dataclass, field
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.limits import Between, Name, OneOf, Says, held
from lamsik.core.materials import Material
from lamsik.core.paints.adjusting import Adjustment
from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.allowances import Allowance
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.hardware import Lip, Placement
from lamsik.core.shapes.hollow import Shell, require_room
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.solid import segments
from lamsik.core.shapes.sources import Source
from lamsik.core.shapes.trial import BELLY, TrialWeight
from lamsik.core.trade.behaviours import BEHAVIOURS, USUAL
from lamsik.core.water import Water

CONSTRUCTIONS = ("wood", "foam", "cast", "print", "soft")


SPEED, SHARE, FREEBOARD = "speed", "share", "freeboard"
WANTED_BY = (SPEED, SHARE, FREEBOARD)
ROLLS = ("any", "steady", "lively")
DRAG_SOURCES = ("shop", "typed", "timed")


Offset = Annotated[float, Between(-300, 300, "mm")]


@dataclass(frozen=True)
class Host:
    """What the body is made of: density and one-sigma spread [g/cm³], and where the figure is from.

    A hollow body has a mean density and, as `solid_g_cm3`, that of its shell: the rest is air that a pierced
    skin lets flood. `face_mm` is how true it is made, one sigma of each face [mm]; None while the
    construction, or what the shop's own blanks tell, stands in. `uneven_mm` is how far its centre of mass
    lies from the middle of its volume [mm]: two pours of unequal density; None for one even material.
    """

    name: Name
    density_g_cm3: Annotated[float, Between(0.02, 9, "g/cm³", "density")]
    spread_g_cm3: Annotated[float, Between(0, 2, "g/cm³", "one sigma between sticks")]
    construction: Annotated[str, OneOf(CONSTRUCTIONS)] = "wood"
    source: Name = "table"
    solid_g_cm3: (
        Annotated[
            float, Between(0.02, 9, "g/cm³", "density of the shell of a hollow body; null if it is solid")
        ]
        | None
    ) = None
    face_mm: (
        Annotated[
            float,
            Between(
                0, 2, "mm", "how true it is made, one sigma of each face; null for what its construction does"
            ),
        ]
        | None
    ) = None
    uneven_mm: Annotated[
        tuple[Offset, Offset, Offset] | None,
        Says("from the middle of its volume to its centre of mass, x, y, z; null for one even material"),
    ] = None

    def __post_init__(self) -> None:
        held(self, "material.")
        for share in self.uneven_mm or ():
            finite_between("material.uneven_mm", share, -300.0, 300.0, "mm")
        if self.solid_g_cm3 is not None:
            low = self.density_g_cm3
            require(
                low - 1e-9 <= self.solid_g_cm3 <= 9.0,
                "material.solid_g_cm3",
                self.solid_g_cm3,
                rule("allowed-body", low=low, value=9.0),
            )

    @property
    def made(self) -> str:
        """How the body came about, as its first weighing is called: carved, foamed, cast or printed."""
        if self.construction == "foam":
            return "foamed" if self.source == "poured" else "carved"
        return {"wood": "carved", "print": "printed"}.get(self.construction, "cast")

    @property
    def blank(self) -> str:
        """What the bare body is called: the carved blank, the print, the casting."""
        return {"carved": "carved blank", "foamed": "foamed blank", "printed": "print"}.get(
            self.made, "casting"
        )

    @property
    def void_share(self) -> float:
        """Share of the body that is air behind its skin."""
        return 1.0 - self.density_g_cm3 / self.solid_g_cm3 if self.solid_g_cm3 else 0.0


def host_of(material: Material) -> Host:
    """A body of a material, as its table has it."""
    return Host(material.name, material.density_g_cm3, material.spread_g_cm3, material.kind)


@dataclass(frozen=True)
class Want:
    """The wanted behaviour.

    `by` says which figure rules: rising (+) or sinking (−) speed [cm/s], net lift in percent of the mass, or
    freeboard [mm], the height of the hull's highest point over the water. Pitch [°] is nose up positive.
    `roll` is the wanted roll recovery; `pierced` asks that it floats with its skin pierced; `waters` are
    those in which the behaviour must hold beside the design's own.
    """

    behaviour: Annotated[str, OneOf(tuple(BEHAVIOURS))] = USUAL
    speed_cm_s: Annotated[float, Between(-60, 60, "cm/s", "rising positive")] = BEHAVIOURS[USUAL].speed_cm_s
    pitch_deg: Annotated[float, Between(-80, 80, "°", "nose up positive")] = 0.0
    by: Annotated[str, OneOf(WANTED_BY), Says("which of the figures rules")] = SPEED
    net_percent: Annotated[float, Between(-90, 900, "%", "net lift in percent of the mass")] = BEHAVIOURS[
        USUAL
    ].share_percent
    freeboard_mm: Annotated[
        float, Between(0, 200, "mm", "height of the hull's highest point over the water")
    ] = 4.0
    roll: Annotated[str, OneOf(ROLLS)] = "any"
    pierced: Annotated[bool, Says("it must float with its skin pierced")] = False
    waters: Annotated[tuple[Water, ...], MaxLen(12), Says("waters in which it must hold too")] = ()

    def __post_init__(self) -> None:
        held(self, "want.")


@dataclass(frozen=True)
class Design:
    """Everything the Tank needs to know about one bait or float.

    `drag` is its own drag coefficient, None while the shop's stands in; `drag_source` says where it is from.
    `layers` are those of the scheme of that code as they lie on this body; `adjustments` what is otherwise
    here.
    `segment_hosts` are segments of another material than the body's, by their key; `shell` makes it hollow.
    """

    name: str
    form: str
    purpose: str
    body: Body
    host: Host
    hardware: tuple[Placement, ...] = ()
    lip: Lip | None = None
    ballast: tuple[Hole, ...] = ()
    layers: tuple[Layer, ...] = ()
    scheme: str = ""
    scheme_version: int = 0
    adjustments: tuple[Adjustment, ...] = ()
    glue_g: float = 0.0
    water: Water = field(default_factory=Water)
    want: Want = field(default_factory=Want)
    allowances: tuple[Allowance, ...] = ()
    pours: tuple[PouredEnd, ...] = ()
    cavities: tuple[Cavity, ...] = ()
    trials: tuple[TrialWeight, ...] = ()
    drag: float | None = None
    drag_source: str = "shop"
    segment_hosts: tuple[tuple[str, Host], ...] = ()
    shell: Shell | None = None
    source: Source = field(default_factory=Source)

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("give-design"))
        finite_between("glue_g", self.glue_g, 0.0, 50.0, "g")
        if self.drag is not None:
            finite_between("drag", self.drag, 0.05, 10.0)
        require(
            self.drag_source in DRAG_SOURCES,
            "drag_source",
            self.drag_source,
            rule("one-of", listed=", ".join(DRAG_SOURCES)),
        )
        for group in ("hardware", "ballast", "layers", "allowances", "pours", "cavities", "trials"):
            keys = [row.key for row in getattr(self, group)]
            require(len(set(keys)) == len(keys), f"{group}.key", keys, rule("each-key"))
        length, reach = self.body.length_mm, rule("allowed-to-the-tail", length=self.body.length_mm)
        for group in ("ballast", "cavities", "trials"):
            for row in getattr(self, group):
                require(row.x_mm <= length, f"{group}.{row.key}.x_mm", row.x_mm, reach)
        for pour in self.pours:
            require(pour.to_mm <= length + 1e-9, f"pours.{pour.key}.to_mm", pour.to_mm, reach)
        if any(placed.seat == "lip" for placed in self.hardware):
            require(
                self.lip is not None,
                "hardware.seat",
                "lip",
                rule("lip-tie"),
            )
        if self.shell is not None:
            require_room(self.body, self.shell.wall_mm)
        known = [part.key for part in segments(self.body)] if self.segment_hosts else []
        for key, _ in self.segment_hosts:
            require(key in known, "segments", key, rule("segments", listed=", ".join(known)))
        places = {BELLY, *(placed.key for placed in self.hardware)}
        for trial in self.trials:
            require(
                trial.place in places,
                f"trials.{trial.key}.place",
                trial.place,
                rule("name-belly"),
            )

    @property
    def metals(self) -> frozenset[str]:
        """The metals of its ballast: slugs and balls."""
        return frozenset(
            [*(hole.slug.metal for hole in self.ballast), *(cavity.slug.metal for cavity in self.cavities)]
        )
