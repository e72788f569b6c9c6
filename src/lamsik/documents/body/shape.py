"""What a body document holds, as types: values of the core as they are, and what only a document has. The
published JSON Schema comes from here.
"""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Len, MaxLen

from lamsik.core.limits import Between, Key, Name, OneOf, Pattern, Says
from lamsik.core.paints.adjusting import Adjustment
from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.allowances import Allowance
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.design import DRAG_SOURCES, Host, Want
from lamsik.core.shapes.hardware import Item, Lip, Placement
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.sources import Source
from lamsik.core.shapes.trial import TrialWeight
from lamsik.core.water import Water
from lamsik.documents.body.before import raised
from lamsik.documents.document_schema import DocumentSchema
from lamsik.documents.schemas import TYPED, Const, PartBeside, Raw

FORMAT, VERSION = "lamsik-body", 6
Share = Annotated[float, Between(-1, 1)]
Line = Annotated[list[Annotated[list[Share], Len(2, 2)]], Len(2, 60)]

MESH_DATA = {
    "type": "string",
    "maxLength": 60_000_000,
    "contentEncoding": "base64",
    "description": (
        "in a file only: the mesh that body.mesh names, deflated: two uint32 counts, float32 vertices in"
        " shares of the size, int32 faces, little-endian"
    ),
}
MAY_LACK = {
    "Host.face_mm",
    "Host.uneven_mm",
    "Hole.beside_mm",
    "Shell.around_mm",
    "Paint.swatch",
    "Paint.code",
}
"""What files of this version were written without before it was thought of."""


@dataclass(frozen=True)
class MeshName:
    """A mesh that is kept beside the document."""

    digest: Annotated[str, Pattern("^[0-9a-f]{64}$")]
    faces: Annotated[int, Between(4, 2_000_000)]
    name: Name


@dataclass(frozen=True)
class BodyBlock:
    """The body as drawn: its size, and its lines as shares of it."""

    length_mm: Annotated[float, Between(5, 600, "mm", "overall length of the body")]
    depth_mm: Annotated[float, Between(0.5, 300, "mm", "height of the block the side pattern needs")]
    width_mm: Annotated[float, Between(0.5, 300, "mm", "greatest width")]
    upper_exponent: Annotated[
        float, Between(1, 12, "", "section above the widest point: 1 diamond, 2 ellipse, 4 and more slab")
    ]
    lower_exponent: Annotated[float, Between(1, 12, "", "section exponent below the widest point")]
    round_nose: bool
    round_tail: bool
    top_shares: Annotated[Line, Says("[share of length, share of depth] from nose to tail")]
    bottom_shares: Line
    half_width_shares: Annotated[Line, Says("[share of length, share of width]")]
    widest_shares: Annotated[
        Line | None, Says("[share of length, share of depth]: height of the widest point; null is its middle")
    ]
    turned: Annotated[bool, Says("turned on a lathe: round sections, the plan is the profile")]
    mesh: Annotated[
        MeshName | None, Says("the mesh it was brought in as; the curves are its outlines as measured")
    ]


@dataclass(frozen=True)
class SegmentMaterialRow:
    """A segment of another material than the body's."""

    key: Key
    material: Host


@dataclass(frozen=True)
class BodyDocument:
    """A body document of this version."""

    format: Annotated[str, Const(FORMAT)]
    version: Annotated[int, Const(VERSION)]
    name: Annotated[str, Len(1, 120)]
    form: Name
    purpose: Annotated[str, OneOf(("bait", "float"))]
    body: BodyBlock
    material: Host
    hardware: Annotated[list[Annotated[Placement, PartBeside(Item, "item")]], MaxLen(60)]
    lip: Lip | None
    ballast: Annotated[list[Hole], MaxLen(12)]
    layers: Annotated[list[Layer], MaxLen(40), Says("of its paint, as they lie on this body")]
    scheme: Annotated[Name, Says("code of the scheme the layers are of")]
    scheme_version: Annotated[
        int, Between(0, 1_000_000, "", "version of the scheme that lies on it; 0 where nobody knows")
    ]
    adjustments: Annotated[
        list[Adjustment], MaxLen(200), Says("what is otherwise on this body than in its scheme")
    ]
    glue_g: Annotated[float, Between(0, 50, "g", "glue allowance")]
    water: Water
    want: Want
    allowances: Annotated[list[Allowance], MaxLen(20), Says("what will come but is not on the drawing yet")]
    pours: Annotated[list[PouredEnd], MaxLen(6), Says("stretches poured in another material")]
    cavities: Annotated[list[Cavity], MaxLen(8), Says("closed chambers with balls")]
    trials: Annotated[list[TrialWeight], MaxLen(12), Says("trial weights of the tub")]
    drag: (
        Annotated[
            float, Between(0.05, 10, "", "drag coefficient of this bait; null while the shop's stands in")
        ]
        | None
    )
    drag_source: Annotated[str, OneOf(DRAG_SOURCES)]
    joints: Annotated[list[Joint], MaxLen(6)]
    segments: Annotated[
        list[SegmentMaterialRow], MaxLen(7), Says("segments of another material, s1 at the nose")
    ]
    shell: Shell | None
    source: Annotated[Source, Says("where the shape is from")]
    typed: Annotated[dict[str, str], Raw(TYPED)]
    mesh_data: Annotated[str, Raw(MESH_DATA)] = ""


BODY_SCHEMA = DocumentSchema(
    "lamsik.documents.body", BodyDocument, FORMAT, VERSION, MAY_LACK, in_a_file=("mesh_data",), raised=raised
)
