"""Meshes bodies were brought in as: kept packed, once for each digest, unpacked into the core's pool
before a design is made.
"""

import zlib
from collections.abc import Iterable, Mapping
from hashlib import sha256
from typing import Any

import numpy as np
from sqlmodel import Session

from lamsik.core.shapes import skins
from lamsik.core.shapes.skins import Mesh
from lamsik.store.tables import SkinMesh


def pack(mesh: Mesh) -> bytes:
    """A mesh as bytes: counts, float32 vertices, int32 faces, deflated."""
    head = np.array([len(mesh.vertices), len(mesh.faces)], dtype="<u4").tobytes()
    return zlib.compress(head + mesh.vertices.astype("<f4").tobytes() + mesh.faces.astype("<i4").tobytes(), 6)


def unpack(data: bytes) -> Mesh:
    """The mesh of packed bytes of our own."""
    return skins.mesh_of_bytes(zlib.decompress(data))


def keep(session: Session, shares: Mesh, name: str, packed: bytes | None = None) -> str:
    """Keep a mesh in shares, as packed elsewhere if it was; its digest."""
    data = packed or pack(shares)
    digest = sha256(data).hexdigest()
    if session.get(SkinMesh, digest) is None:
        session.add(SkinMesh(digest=digest, name=name, faces=len(shares.faces), data=data))
        session.flush()
    skins.keep(digest, unpack(data))
    return digest


def packed(session: Session, document: Mapping[str, Any]) -> bytes | None:
    """The packed mesh of a document's body, None if it has none."""
    mesh = document["body"]["mesh"]
    row = session.get(SkinMesh, mesh["digest"]) if mesh else None
    return row.data if row else None


def ready(session: Session, documents: Iterable[Mapping[str, Any]]) -> None:
    """Put the meshes these documents name into the core's pool, those the shop has."""
    for document in documents:
        mesh = document.get("body", {}).get("mesh") if isinstance(document.get("body"), dict) else None
        digest = str(mesh.get("digest")) if isinstance(mesh, dict) else ""
        if digest and not skins.is_kept(digest):
            row = session.get(SkinMesh, digest)
            if row is not None:
                skins.keep(digest, unpack(row.data))
