"""The body file: a body document as JSON text, with the mesh of a body that was brought in as one."""

import base64
import json
import zlib
from hashlib import sha256
from typing import Any

import numpy as np

from lamsik.core.errors import Refused, require
from lamsik.core.shapes import skins
from lamsik.core.shapes.meshing import check
from lamsik.core.shapes.skins import Mesh
from lamsik.documents.body.document import MESH, MOST_BYTES
from lamsik.documents.body.edits import BODY
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.rows import Document
from lamsik.formats import document_file
from lamsik.formats.json_text import json_text
from lamsik.formats.sniff import kind_of

MOST_MESH_BYTES = 60_000_000
SHARES_OFF = 1e-3
"""By how much the mesh of a body file may miss its length, width and depth."""


def write(document: Document, packed: bytes | None) -> str:
    """The file's text."""
    if packed is None:
        return document_file.write(BODY, document)
    return json_text({**document, MESH: base64.b64encode(packed).decode("ascii")})


def read(data: bytes) -> tuple[Document, bytes | None]:
    """The document and the packed mesh it came with. Raises `Refused` naming what is wrong."""
    if len(data) <= MOST_BYTES and MESH.encode() not in data:
        return document_file.read(BODY, data), None
    if len(data) > MOST_MESH_BYTES or MESH.encode() not in data:
        raise Refused(
            "file",
            f"{len(data) / 1e6:.1f} MB",
            f"at most {MOST_BYTES / 1e6:.0f} MB, with a mesh {MOST_MESH_BYTES / 1e6:.0f} MB",
        )
    try:
        content: Any = json.loads(data)
        packed = base64.b64decode(content.pop(MESH), validate=True)
    except (ValueError, RecursionError, TypeError, KeyError, AttributeError) as error:
        raise Refused("file", kind_of(data, "a JSON file"), "this is no body file with a mesh") from error
    document = BODY_SCHEMA.checked(content)
    mesh = document["body"]["mesh"]
    if mesh is None or sha256(packed).hexdigest() != mesh["digest"]:
        raise Refused(
            MESH,
            "another mesh",
            "the mesh in the file is not the one the body names: it was changed or cut short",
        )
    return document, packed


def inflated(packed: bytes, most: int = 200_000_000) -> bytes:
    """A packed mesh unpacked, no further than a limit. Raises `Refused` where it is not one."""
    try:
        unpacker = zlib.decompressobj()
        raw = unpacker.decompress(packed, most)
        if unpacker.unconsumed_tail:
            raise Refused(MESH, "too large", "the mesh in the file unpacks to more than a body needs")
        return raw
    except zlib.error as error:
        raise Refused(MESH, "not packed as ours", "the mesh in the file cannot be read") from error


def opened(data: bytes) -> tuple[Document, bytes | None, Mesh | None]:
    """A body file with its mesh, if it has one, put into the core's pool: what names it can be computed.

    Raises:
        Refused: naming what is wrong, with the mesh too: its size, holes in it.
    """
    document, packed = read(data)
    if packed is None:
        return document, None, None
    mesh = skins.mesh_of_bytes(inflated(packed))
    check(mesh.vertices, mesh.faces)
    spans = np.ptp(mesh.vertices, axis=0)
    require(
        bool(np.all(np.abs(spans - 1.0) < SHARES_OFF)),
        MESH,
        None,
        "the mesh in the file is not in shares of length, width and depth",
    )
    skins.keep(document["body"]["mesh"]["digest"], mesh)
    return document, packed, mesh
