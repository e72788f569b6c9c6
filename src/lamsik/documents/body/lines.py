"""Outlines and meshes as body documents: a new one, or a body whose lines they take the place of."""

from dataclasses import replace

from lamsik.core.errors import finite_between
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS
from lamsik.core.shapes.meshing import MeshSize
from lamsik.core.shapes.outlining import Lines
from lamsik.core.shapes.scaling import with_length
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document, to_design, with_design
from lamsik.documents.rows import Document

OWN_LINES = "own lines"
"""The form of a body that was traced or brought in."""

ROUND_WIDTH = 0.8
"""Where no top outline is given the body is as wide as this share of its depth."""


def blank(name: str, host: Host, water: Water) -> Document:
    """A document without a shape worth keeping: the bait form every other begins from."""
    return new_document(name, replace(FORMS["slim"], key=OWN_LINES), host, water, Want())


def with_lines(
    document: Document, side: Lines | None, top: Lines | None, width_mm: float | None = None
) -> Document:
    """The document with the lines of a side and a top outline [mm]; what sits on it keeps its place in
    proportion.

    Without a top outline the plan follows the profile, at `width_mm` or 0.8 of the depth.
    """
    length = side.length_mm if side else float(document["body"]["length_mm"])
    lengthened = (
        with_design(document, with_length(to_design(document), length))
        if abs(length - document["body"]["length_mm"]) > 1e-9
        else dict(document)
    )
    block = dict(lengthened["body"], turned=False, mesh=None)
    if side is not None:
        depth = side.depth_mm
        block |= {
            "depth_mm": depth,
            "top_shares": _shares(side.upper, depth),
            "bottom_shares": _shares(side.lower, depth),
            "widest_shares": None,
            "round_nose": True,
            "round_tail": True,
        }
    if top is not None:
        width = 2 * max(v for _, v in top.upper)
        block |= {"width_mm": width, "half_width_shares": _shares(top.upper, width)}
    elif side is not None:
        width = (
            finite_between("width", width_mm, 0.5, 300.0, "mm")
            if width_mm
            else round(ROUND_WIDTH * side.depth_mm, 1)
        )
        half = [(s, max(u - v, 0.0) / 2) for (s, u), (_, v) in zip(side.upper, side.lower, strict=True)]
        most = 2 * max(v for _, v in half)
        block |= {"width_mm": width, "half_width_shares": [[s, v / most] for s, v in half]}
    typed = {path: text for path, text in lengthened["typed"].items() if not path.startswith("body.")}
    lengthened = {**lengthened, "body": block, "typed": typed}
    to_design(lengthened)
    return lengthened


def _shares(points: tuple[tuple[float, float], ...], size_mm: float) -> list[list[float]]:
    return [[s, min(max(v / size_mm, -1.0), 1.0)] for s, v in points]


def with_mesh(document: Document, mesh_size: MeshSize, digest: str, name: str) -> Document:
    """The document with a mesh as its body; the outlines are those measured on it."""
    body = mesh_size.body
    depth, width = body.depth_mm, body.width_mm
    assert body.widest is not None
    rows = {
        key: [[s, min(max(v / size, -1.0), 1.0)] for s, v in zip(curve.shares, curve.values_mm, strict=True)]
        for key, curve, size in (
            ("top_shares", body.top, depth),
            ("bottom_shares", body.bottom, depth),
            ("half_width_shares", body.half_width, width),
            ("widest_shares", body.widest, depth),
        )
    }
    block = {
        **document["body"],
        **rows,
        "length_mm": body.length_mm,
        "depth_mm": depth,
        "width_mm": width,
        "round_nose": True,
        "round_tail": True,
        "turned": False,
        "upper_exponent": body.upper_exponent,
        "lower_exponent": body.lower_exponent,
        "mesh": {"digest": digest, "faces": len(mesh_size.shares.faces), "name": name[:200]},
    }
    return {**document, "body": block}
