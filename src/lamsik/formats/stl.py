"""STL, binary and text: read by trimesh, checked by the core; written in binary with its accuracy in the
header.
"""

from collections.abc import Callable
from io import BytesIO
from textwrap import shorten
from typing import Any

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.quantities import file_size
from lamsik.core.shapes.meshing import MOST_FACES, Checked, check
from lamsik.core.shapes.skins import Mesh
from lamsik.formats.sniff import kind_of

MOST_BYTES = 110_000_000
UNITS_MM = {"mm": 1.0, "cm": 10.0, "in": 25.4, "m": 1000.0}
HEAD = 84


def _quiet(share: float, says: str) -> None:
    """Nobody asks how far it is."""


def read(data: bytes, step: Callable[[float, str], None] = _quiet) -> Checked:
    """A checked mesh from the bytes of an STL file; `step` is told how far it is (share, words).

    Raises:
        Refused: naming what is wrong and where.
    """
    if len(data) > MOST_BYTES:
        raise Refused("stl", f"{len(data) / 1e6:.0f} MB", f"at most {MOST_BYTES / 1e6:.0f} MB")
    if len(data) < 15:
        raise Refused("stl", file_size(len(data)), "this is no STL file: it is empty or cut short")
    _refuse_cut_short(data)
    import trimesh  # noqa: PLC0415 - slow to import, and needed for meshes alone

    step(0.1, "reading the triangles")
    try:
        mesh: Any = trimesh.load(BytesIO(data), file_type="stl", process=False)
        vertices, faces = np.asarray(mesh.vertices, dtype=float), np.asarray(mesh.faces)
    except Exception as error:
        raise Refused("stl", kind_of(data, "an STL mesh"), "this is no STL file that can be read") from error
    step(0.4, f"joining the corners of {len(faces)} triangles")
    merged = _merged(vertices, faces)
    step(0.7, "looking for holes")
    return check(*merged)


def _refuse_cut_short(data: bytes) -> None:
    """A binary file says how many triangles follow."""
    if data[:5].lower() == b"solid" and b"facet" in data[:2000].lower():
        return
    count = int.from_bytes(data[80:HEAD], "little") if len(data) >= HEAD else 0
    if count > MOST_FACES:
        raise Refused("stl", f"{count} triangles", f"at most {MOST_FACES}, or it is no STL file")
    if len(data) < HEAD + 50 * count or count == 0:
        raise Refused(
            "stl",
            file_size(len(data)),
            f"the file says {count} triangles and holds {max(len(data) - HEAD, 0) // 50}: it is cut short, or"
            " no STL file",
        )


def _merged(vertices: Any, faces: Any) -> tuple[Any, Any]:
    """Corners that coincide to a millionth of the size become one."""
    if not len(vertices) or not np.all(np.isfinite(vertices)):
        return vertices, faces
    size = float(np.ptp(vertices, axis=0).max()) or 1.0
    spots = np.round((vertices - vertices.min(axis=0)) / (size * 1e-6)).astype(np.int64)
    _, first, back = np.unique(
        spots @ np.array([1, 2_097_152, 2_097_152**2]), return_index=True, return_inverse=True
    )
    return vertices[first], back.reshape(-1)[np.asarray(faces)]


APART_DIGITS = 4
"""Corners nearer than a tenth of a thousandth of a millimetre are one."""


def write(mesh: Mesh, title: str) -> bytes:
    """A mesh [mm] as a binary STL, its title cut at a word in the header; triangles that have no area in the
    file's own numbers are left out.

    A fan at a pole, or corners that the file cannot tell apart, would make other readers call it open.
    """
    rounded = np.round(np.asarray(mesh.vertices), APART_DIGITS).astype("<f4") + np.float32(0.0)
    corners, place = np.unique(rounded, axis=0, return_inverse=True)
    faces = place.reshape(-1)[mesh.faces]
    faces = faces[(faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])]
    points = corners[faces].astype(np.float64)
    normal = np.cross(points[:, 1] - points[:, 0], points[:, 2] - points[:, 0])
    rows = np.zeros(len(faces), dtype=[("normal", "<f4", 3), ("points", "<f4", (3, 3)), ("spare", "<u2")])
    rows["normal"] = normal / np.maximum(np.linalg.norm(normal, axis=1), 1e-300)[:, None]
    rows["points"] = points
    plain = title.encode("ascii", "replace").decode("ascii")
    said = shorten(plain, 79, placeholder="") or plain[:79]
    return said.encode("ascii").ljust(80, b" ") + len(faces).to_bytes(4, "little") + rows.tobytes()
