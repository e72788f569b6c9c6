"""What a page has already is not sent again, and what it makes of an answer is the view as it was
computed.
"""

import gzip
import json
import re
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.web.shared.lean import MOST_NAMES, lean, names
from tests.demo_rows import FERRY_RUNNER, STUBBY_FOUR_AT_ONCE, TENCH_ANTENNA_2_5_G
from tests.lean import Known


def plain(random):
    return random.choice(
        [
            None,
            True,
            random.randint(-9, 9),
            random.uniform(-1e3, 1e3),
            "".join(random.choices("aé ", k=random.randint(0, 40))),
        ]
    )


def drawing(random, depth):
    if depth == 0 or random.random() < 0.3:
        return {
            "tag": "path",
            "attrs": {"d": "M0 1" * random.randint(1, 60), "stroke-width": str(random.randint(0, 3))},
            "children": random.choice([[], ["text"]]),
        }
    return {
        "tag": "g",
        "attrs": {},
        "children": [drawing(random, depth - 1) for _ in range(random.randint(0, 4))],
    }


def view(random):
    rows = [
        {"key": f"r{n}", "sub": [plain(random) for _ in range(random.randint(0, 9))]}
        for n in range(random.randint(0, 5))
    ]
    return {
        "rows": rows,
        "fields": {f"f{n}": plain(random) for n in range(random.randint(20, 60))},
        "picture": drawing(random, 4),
    }


def altered(random, value):
    """The value with one place in it changed."""
    value = json.loads(json.dumps(value))
    value["fields"]["f3"] = "changed"
    value["picture"] = {"tag": "g", "attrs": {}, "children": [value["picture"], drawing(random, 1)]}
    return value


@given(seed=st.integers(0, 10**6))
def test_any_views_come_whole_one_after_the_other(seed):
    random, known = Random(seed), Known()
    first = view(random)
    for one in (first, altered(random, first), view(random), first):
        assert known.read(json.loads(json.dumps(lean(one, known.values)))) == one


@given(seed=st.integers(0, 10**6))
def test_what_did_not_change_is_hardly_sent(seed):
    known, one = Known(), view(Random(seed))
    whole = json.dumps(known.read(lean(one)))
    assert len(json.dumps(lean(one, known.values))) < max(0.3 * len(whole), 1_000)


@pytest.mark.parametrize("sent", [None, 3, "abc", {"a": 1}, ["x"] * (MOST_NAMES + 1), [1, None]])
def test_a_page_that_says_nonsense_has_nothing(sent):
    assert names(sent) == frozenset()


DRAGS = [
    (f"/tank/{FERRY_RUNNER}", "ballast.b1.x_mm", ("34.0 mm", "34.3 mm")),
    (f"/shapes/{FERRY_RUNNER}", "body.depth_mm", ("21.0 mm", "21.2 mm")),
    (f"/floats/{TENCH_ANTENNA_2_5_G}", "marks.m2.height_mm", ("150 mm", "151 mm")),
    (f"/moulds/{STUBBY_FOUR_AT_ONCE}", "tilt_deg", ("20", "21")),
]


@pytest.mark.parametrize(("url", "path", "texts"), DRAGS)
def test_a_drag_sends_what_changed(demo, url, path, texts):
    state = json.loads(re.search(r'id="state">(.*?)</script>', demo.get(url).text, re.S).group(1))
    known = Known()
    known.read(state["view"])
    live = f"{state.get('root', '/designs')}/{state['id']}/live"
    for text in texts:
        body = {
            "document": state["document"],
            "base": state["base"],
            "bench": state["bench"],
            "edits": [{"do": "set", "path": path, "text": text}],
            "mode": "drag",
        }
        answer, whole = demo.send(live, {**body, "has": list(known.values)}), demo.send(live, body).get_json()
        assert whole["errors"] == []
        assert known.read(answer.get_json()["view"]) == whole["view"]
    packed = len(gzip.compress(answer.data, 1))
    assert packed < 12_000 and (url == f"/shapes/{FERRY_RUNNER}" or len(answer.data) < 12_000), (
        len(answer.data),
        packed,
    )
