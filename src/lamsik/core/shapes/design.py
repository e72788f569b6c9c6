"""A design: one body with its material, hardware, ballast, coats, water and wanted behaviour."""

from dataclasses import dataclass, field

from lamsik.core.errors import finite_between, require
from lamsik.core.paints.coats import Coat
from lamsik.core.shapes.allowances import Allowance
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.hardware import Lip, Placement
from lamsik.core.shapes.hollow import Shell, require_room
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.solid import segments
from lamsik.core.shapes.sources import Source
from lamsik.core.shapes.trial import BELLY, TrialWeight
from lamsik.core.water import Water

CONSTRUCTIONS = ("wood", "foam", "cast", "print", "soft")


SPEED, SHARE, FREEBOARD = "speed", "share", "freeboard"
WANTED_BY = (SPEED, SHARE, FREEBOARD)
ROLLS = ("any", "steady", "lively")
DRAG_SOURCES = ("shop", "typed", "timed")


@dataclass(frozen=True)
class Host:
    """What the body is made of: density and one-sigma spread [g/cm³], and where the figure is from.

    A hollow body has a mean density and, as `solid_g_cm3`, that of its shell: the rest is air that a pierced
    skin lets flood. `face_mm` is how true it is made, one sigma of each face [mm]; None while the
    construction, or what the shop's own blanks tell, stands in. `uneven_mm` is how far its centre of mass
    lies from the middle of its volume [mm]: two pours of unequal density; None for one even material.
    """

    name: str
    density_g_cm3: float
    spread_g_cm3: float
    construction: str = "wood"
    source: str = "table"
    solid_g_cm3: float | None = None
    face_mm: float | None = None
    uneven_mm: tuple[float, float, float] | None = None

    def __post_init__(self) -> None:
        finite_between("material.density_g_cm3", self.density_g_cm3, 0.02, 9.0, "g/cm³")
        finite_between("material.spread_g_cm3", self.spread_g_cm3, 0.0, 2.0, "g/cm³")
        require(
            self.construction in CONSTRUCTIONS,
            "material.construction",
            self.construction,
            f"one of {', '.join(CONSTRUCTIONS)}",
        )
        if self.face_mm is not None:
            finite_between("material.face_mm", self.face_mm, 0.0, 2.0, "mm")
        for share in self.uneven_mm or ():
            finite_between("material.uneven_mm", share, -300.0, 300.0, "mm")
        if self.solid_g_cm3 is not None:
            low = self.density_g_cm3
            require(
                low - 1e-9 <= self.solid_g_cm3 <= 9.0,
                "material.solid_g_cm3",
                self.solid_g_cm3,
                f"allowed is {low:g} (the body's mean) to 9 g/cm³",
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


@dataclass(frozen=True)
class Want:
    """The wanted behaviour.

    `by` says which figure rules: rising (+) or sinking (−) speed [cm/s], net lift in percent of the mass, or
    freeboard [mm], the height of the hull's highest point over the water. Pitch [°] is nose up positive.
    `roll` is the wanted roll recovery; `pierced` asks that it floats with its skin pierced; `waters` are
    those in which the behaviour must hold beside the design's own.
    """

    behaviour: str = "slow rise"
    speed_cm_s: float = 6.0
    pitch_deg: float = 0.0
    by: str = SPEED
    net_percent: float = 2.0
    freeboard_mm: float = 4.0
    roll: str = "any"
    pierced: bool = False
    waters: tuple[Water, ...] = ()

    def __post_init__(self) -> None:
        finite_between("want.speed_cm_s", self.speed_cm_s, -60.0, 60.0, "cm/s")
        finite_between("want.pitch_deg", self.pitch_deg, -80.0, 80.0, "°")
        finite_between("want.net_percent", self.net_percent, -90.0, 900.0, "%")
        finite_between("want.freeboard_mm", self.freeboard_mm, 0.0, 200.0, "mm")
        require(self.by in WANTED_BY, "want.by", self.by, f"one of {', '.join(WANTED_BY)}")
        require(self.roll in ROLLS, "want.roll", self.roll, f"one of {', '.join(ROLLS)}")


@dataclass(frozen=True)
class Design:
    """Everything the Tank needs to know about one bait or float.

    `drag` is its own drag coefficient, None while the shop's stands in; `drag_source` says where it is from.
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
    coats: tuple[Coat, ...] = ()
    scheme: str = ""
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
        require(bool(self.name.strip()), "name", self.name, "give the design a name")
        finite_between("glue_g", self.glue_g, 0.0, 50.0, "g")
        if self.drag is not None:
            finite_between("drag", self.drag, 0.05, 10.0)
        require(
            self.drag_source in DRAG_SOURCES,
            "drag_source",
            self.drag_source,
            f"one of {', '.join(DRAG_SOURCES)}",
        )
        for group in ("hardware", "ballast", "coats", "allowances", "pours", "cavities", "trials"):
            keys = [row.key for row in getattr(self, group)]
            require(len(set(keys)) == len(keys), f"{group}.key", keys, "each key once")
        length, reach = self.body.length_mm, f"allowed is 0 to {self.body.length_mm:g} mm"
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
                "there is no lip to tie on: fit one, or move the tie to the nose",
            )
        if self.shell is not None:
            require_room(self.body, self.shell.wall_mm)
        known = [part.key for part in segments(self.body)] if self.segment_hosts else []
        for key, _ in self.segment_hosts:
            require(key in known, "segments", key, f"segments are {', '.join(known)}")
        places = {BELLY, *(placed.key for placed in self.hardware)}
        for trial in self.trials:
            require(
                trial.place in places,
                f"trials.{trial.key}.place",
                trial.place,
                "name the belly or a part that is on the body",
            )

    @property
    def metals(self) -> frozenset[str]:
        """The metals of its ballast: slugs and balls."""
        return frozenset(
            [*(hole.slug.metal for hole in self.ballast), *(cavity.slug.metal for cavity in self.cavities)]
        )
