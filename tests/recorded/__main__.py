"""`python -m tests.recorded`: record anew what is shown."""

import json
import tempfile
from pathlib import Path

from sqlmodel import update

from lamsik.demo.shop import build
from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Person, now
from lamsik.web.app import create_app
from tests.pages import EVERY, MORE
from tests.recorded import DOCUMENTS, SHOWN, shown
from tests.recorded.cases import CASES
from tests.recorded.core import CORE, told
from tests.recorded.edits import SAID, all_said
from tests.recorded.pages import SEEN, seen, words
from tests.web.conftest import Visitor


def write(path: Path, rows: list[dict]) -> None:
    text = "".join(f"{json.dumps(row, ensure_ascii=False, sort_keys=True)}\n" for row in rows)
    path.write_text(text, encoding="utf-8")


with tempfile.TemporaryDirectory() as folder:
    engine = open_database(Path(folder))
    with session_of(engine) as session:
        build(session)
        session.exec(update(Person).values(gone_at=now()))  # as in the shop the tests have
    engine.dispose()
    visitor = Visitor(create_app(Path(folder)))
    documents = [json.loads(line) for line in DOCUMENTS.read_text(encoding="utf-8").splitlines()]
    pages = sorted({*EVERY, *MORE, *seen()})  # what was recorded once stays so
    answers = {url: visitor.get(url, follow_redirects=True).get_data(as_text=True) for url in pages}
    write(SEEN, [{"url": url, "lines": words(answer)} for url, answer in answers.items()])
    write(SHOWN, [shown(visitor, document, at) for at, document in enumerate(documents)])
write(SAID, all_said())
write(CORE, [told(name) for name in sorted(CASES)])
