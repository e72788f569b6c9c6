"""Write the JSON Schemas of all kinds of document anew, from the types they are made of."""

from pathlib import Path

from lamsik.documents.registry import KINDS

SOURCES = Path(__file__).parent.parent / "src"

if __name__ == "__main__":
    for kind in KINDS.values():
        kind.schema.write(SOURCES)
