"""A solid as a line drawing, seen from above at a slant: its edges and outline, what faces away left out."""

import numpy as np
from numpy.typing import NDArray

from lamsik.core.moulds.geometry import face_normals
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.drawings.ink import INK, MUTED, pen_for
from lamsik.drawings.svg import Node, framed, node

SHARP_DEG = 28.0
VIEW = np.array([-0.42, -0.68, 0.6])
FILLS = ("#BCD3DC", "#CFE0D3", "#E3ECE4")


def line_view(mesh: Mesh, title: str) -> Node:
    """The solid [mm] drawn by its sharp edges; large flat faces that face us are tinted by how they stand."""
    normals, _ = face_normals(mesh)
    view = VIEW / np.linalg.norm(VIEW)
    right = np.cross([0.0, 0.0, 1.0], view)
    right /= np.linalg.norm(right)
    up = np.cross(view, right)
    flat = np.column_stack([mesh.vertices @ right, mesh.vertices @ up])
    front = normals @ view > 1e-6
    low, size = flat.min(axis=0), np.ptp(flat, axis=0)
    pen = pen_for(float(size[0]) * 1.06, 420)
    rows = [
        *_tints(mesh, flat, normals, front),
        node(
            "path",
            d=_lines(mesh, flat, normals, front),
            fill="none",
            stroke=INK,
            stroke_width=pen.mm,
            stroke_linecap="round",
        ),
    ]
    edge = 6 * pen.mm
    frame = node(
        "rect",
        x=low[0] - edge,
        y=-(low[1] + size[1]) - edge,
        width=size[0] + 2 * edge,
        height=size[1] + 2 * edge,
        fill="none",
        stroke=MUTED,
        stroke_width=0.001,
    )
    return framed(
        [frame, *rows],
        low[0] - edge,
        -(low[1] + size[1]) - edge,
        float(size[0]) + 2 * edge,
        float(size[1]) + 2 * edge,
        title,
    )


def _tints(mesh: Mesh, flat: Array, normals: Array, front: NDArray[np.bool_]) -> list[Node]:
    """Faces towards us in three tints by their normal, the lower first so that the upper cover them."""
    shade = np.where(normals[:, 2] > 0.9, 2, np.where(np.abs(normals[:, 0]) > np.abs(normals[:, 1]), 0, 1))
    depth = mesh.vertices[mesh.faces].mean(axis=1) @ (VIEW / np.linalg.norm(VIEW))
    rows = []
    order = np.nonzero(front)[0]
    order = order[np.argsort(depth[order])]
    # runs of one tint in drawing order become one path: a few hundred instead of thousands
    tints = shade[order]
    cuts = np.nonzero(np.diff(tints))[0] + 1
    for run in np.split(order, cuts):
        corners = flat[mesh.faces[run]]
        d = "".join(
            f"M{a[0]:.1f} {-a[1]:.1f}L{b[0]:.1f} {-b[1]:.1f}L{c[0]:.1f} {-c[1]:.1f}Z" for a, b, c in corners
        )
        fill = FILLS[int(shade[run[0]])]
        rows.append(node("path", d=d, fill=fill, stroke=fill, stroke_width=0.15))
    return rows


def _lines(mesh: Mesh, flat: Array, normals: Array, front: NDArray[np.bool_]) -> str:
    edges = np.concatenate([mesh.faces[:, [0, 1]], mesh.faces[:, [1, 2]], mesh.faces[:, [2, 0]]])
    owner = np.tile(np.arange(len(mesh.faces)), 3)
    key = np.sort(edges, axis=1)
    order = np.lexsort((key[:, 1], key[:, 0]))
    key, owner = key[order], owner[order]
    pairs = np.nonzero((key[:-1] == key[1:]).all(axis=1))[0]
    one, other = owner[pairs], owner[pairs + 1]
    bend = np.einsum("ij,ij->i", normals[one], normals[other]) < np.cos(np.radians(SHARP_DEG))
    shown = (front[one] | front[other]) & (bend | (front[one] != front[other]))
    ends = flat[key[pairs[shown]]]
    return "".join(f"M{a[0]:.1f} {-a[1]:.1f}L{b[0]:.1f} {-b[1]:.1f}" for a, b in ends)
