"""The body file: a body document as JSON text, with the mesh of a body that was brought in as one."""

import base64
import json
import zlib
from hashlib import sha256
from typing import Any

from lamsik.core.errors import Refused
from lamsik.formats.body_document import MOST_BYTES, Document, dumps, loads

MESH = "mesh_data"
MOST_MESH_BYTES = 60_000_000


def write(document: Document, packed: bytes | None) -> str:
    """The file's text."""
    if packed is None:
        return dumps(document)
    return json.dumps({**document, MESH: base64.b64encode(packed).decode("ascii")}, ensure_ascii=False, indent=2, allow_nan=False) + "\n"


def read(data: bytes) -> tuple[Document, bytes | None]:
    """The document and the packed mesh it came with. Raises `Refused` naming what is wrong."""
    if len(data) <= MOST_BYTES and MESH.encode() not in data:
        return loads(data), None
    if len(data) > MOST_MESH_BYTES or MESH.encode() not in data:
        raise Refused("file", f"{len(data) / 1e6:.1f} MB", f"at most {MOST_BYTES / 1e6:.0f} MB, with a mesh {MOST_MESH_BYTES / 1e6:.0f} MB")
    try:
        found: Any = json.loads(data)
        packed = base64.b64decode(found.pop(MESH), validate=True)
    except (ValueError, RecursionError, TypeError, KeyError, AttributeError) as error:
        raise Refused("file", data[:40].decode("utf-8", "replace"), "this is no body file with a mesh") from error
    document = loads(json.dumps(found))
    mesh = document["body"]["mesh"]
    if mesh is None or sha256(packed).hexdigest() != mesh["digest"]:
        raise Refused(MESH, "another mesh", "the mesh in the file is not the one the body names: it was changed or cut short")
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
