"""`python -m tests.recorded [--draw]`: record anew."""

import json
import sys
import tempfile
from pathlib import Path

from lamsik.demo.shop import build
from lamsik.store.database import open_database, session_of
from lamsik.web.app import create_app
from tests.recorded import DOCUMENTS, EVERY_FOURTH, SHOWN, drawn, shown
from tests.web.conftest import Visitor


def written(path: Path, rows: list) -> None:
    path.write_text("".join(f"{json.dumps(row, ensure_ascii=False, sort_keys=True)}\n" for row in rows), encoding="utf-8")


with tempfile.TemporaryDirectory() as folder:
    engine = open_database(Path(folder))
    with session_of(engine) as session:
        build(session)
    engine.dispose()
    visitor = Visitor(create_app(Path(folder)))
    if "--draw" in sys.argv:
        written(DOCUMENTS, drawn(visitor))
    documents = [json.loads(line) for line in DOCUMENTS.read_text(encoding="utf-8").splitlines()]
    written(SHOWN, [shown(visitor, document, at % EVERY_FOURTH == 0) for at, document in enumerate(documents)])
