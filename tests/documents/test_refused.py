"""Edits that cannot be are refused in words: the table `tests/refused/edits.txt`, a kind of document, the
edit (or a field of a document that another program sends), and what is said.
"""

import copy
import json
from functools import reduce
from operator import getitem
from pathlib import Path

import pytest

from lamsik.core.errors import Refused
from lamsik.documents import engine
from lamsik.documents.body.edits import BODY
from lamsik.documents.registry import KINDS
from lamsik.words import refusals
from tests.documents.test_body import document
from tests.documents.test_registry import SAMPLES, SHOPS

TABLE = Path(__file__).parents[1] / "refused/edits.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]


@pytest.mark.parametrize(("kind", "edit", "says"), ROWS)
def test_what_cannot_be_done_is_said_in_words(kind, edit, says):
    of = {"mesh": "body", "bare": "body"}.get(kind, kind)
    sample = document() if kind == "bare" else SAMPLES[of][0]
    if kind == "mesh":
        sample = sample | {"body": sample["body"] | {"mesh": {"digest": 64 * "0", "faces": 12, "name": "x"}}}
    kept = copy.deepcopy(sample)
    asked = json.loads(edit)
    with pytest.raises(Refused) as refused:
        if "at" in asked:
            KINDS[of].brought_in(put(copy.deepcopy(sample), *asked["at"].split("."), value=asked["value"]))
        engine.apply(KINDS[of], sample, asked, SHOPS.get(of))
    assert says.lower() in refusals.says(refused.value).lower().replace("−", "-") and sample == kept


def put(document, *way, value):
    *steps, last = (int(step) if step.isdigit() else step for step in way)
    reduce(getitem, steps, document)[last] = value
    return document


def test_every_edit_of_a_body_is_refused_here_or_done_there():
    tried = {json.loads(edit).get("do") for kind, edit, _ in ROWS if kind in ("body", "bare", "mesh")}
    assert set(BODY.edits) <= tried | {"lip", "slug", "water", "swap", "pour", "pair"}
