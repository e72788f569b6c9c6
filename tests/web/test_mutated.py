"""Files of every format, changed at random and brought in through their own doors: refused, or kept and
then shown; never an error of the program.
"""

import io
import json
import random
import re

import pytest
from PIL import Image

from tests.demo_rows import CASTING_RESIN, FERRY_RUNNER, SPLIT_EEL, STUBBY_FOUR_AT_ONCE, TENCH_ANTENNA_2_5_G
from tests.until import until
from tests.web.test_shapes import a_cutout

ODD = (
    0,
    -1,
    1e308,
    -1e-300,
    10**400,
    "",
    "x" * 4000,
    None,
    True,
    [],
    {},
    [[]],
    {"key": "a"},
    "\ud83d",
    -0.0,
    "½",
    2**63,
)
TIMES = 12


def leaves(value, path=()):
    """The paths to every value of a JSON document."""
    yield path
    rows = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for name, one in rows:
        yield from leaves(one, (*path, name))


def changed_json(data: bytes, dice: random.Random) -> bytes:
    """One to three values of it made odd, taken out, or doubled."""
    document = json.loads(data)
    for _ in range(dice.randint(1, 3)):
        path = dice.choice([one for one in leaves(document) if one] or [()])
        here = document
        try:
            for name in path[:-1]:
                here = here[name]
            how = dice.random()
            if how < 0.2:
                del here[path[-1]]
            elif how < 0.3 and isinstance(here, list):
                here.append(json.loads(json.dumps(here[path[-1]])))
            else:
                here[path[-1]] = dice.choice(ODD)
        except (KeyError, IndexError, TypeError):
            continue
    return json.dumps(document, ensure_ascii=True).encode()


def changed_bytes(data: bytes, dice: random.Random) -> bytes:
    """Cut short, bytes turned, a number made another, a stretch doubled."""
    how = dice.random()
    if how < 0.25:
        return data[: dice.randrange(len(data))]
    if how < 0.5:
        found = bytearray(data)
        for _ in range(dice.randint(1, 20)):
            found[dice.randrange(len(found))] = dice.randrange(256)
        return bytes(found)
    if how < 0.8:
        numbers = list(re.finditer(rb"-?\d+\.?\d*", data))
        if numbers:
            one = dice.choice(numbers)
            return (
                data[: one.start()]
                + dice.choice((b"0", b"-1", b"1e308", b"nan", b"99999999999999999999", b""))
                + data[one.end() :]
            )
    at = dice.randrange(len(data))
    return data[:at] + data[at : at + 400] * 2 + data[at + 400 :]


def doors(shop):
    """Each format: a good file, its door, the field, the list that must go on, how it is changed."""
    photo = io.BytesIO()
    Image.open(io.BytesIO(a_cutout())).save(photo, "JPEG")
    return {
        "body.json": (
            shop.get(f"/shapes/{SPLIT_EEL}/body.json").data,
            "/shapes/bring-in",
            "file",
            "/shapes",
            changed_json,
        ),
        "body.svg": (
            shop.get(f"/shapes/{SPLIT_EEL}/outlines.svg").data,
            "/shapes/bring-in",
            "file",
            "/shapes",
            changed_bytes,
        ),
        "body.dxf": (
            shop.get(f"/shapes/{SPLIT_EEL}/outlines.dxf").data,
            "/shapes/bring-in",
            "file",
            "/shapes",
            changed_bytes,
        ),
        "float.json": (
            shop.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").data,
            "/floats/bring-in",
            "file",
            "/floats",
            changed_json,
        ),
        "mould.json": (
            shop.get(f"/moulds/{STUBBY_FOUR_AT_ONCE}/mould.json").data,
            "/moulds/bring-in",
            "file",
            "/moulds",
            changed_json,
        ),
        "product.json": (
            shop.get(f"/mixes/products/{CASTING_RESIN}/product.json").data,
            "/mixes/products/bring-in",
            "file",
            "/mixes",
            changed_json,
        ),
        "weighed.csv": (
            shop.get("/scale/things.csv").data,
            "/scale/things.csv",
            "file",
            "/scale",
            changed_bytes,
        ),
        "photo.jpg": (photo.getvalue(), "/shapes/bring-in/photo", "photo", "/shapes/bring-in", changed_bytes),
    }


@pytest.mark.parametrize(
    "name",
    [
        "body.json",
        "body.svg",
        "body.dxf",
        "float.json",
        "mould.json",
        "product.json",
        "weighed.csv",
        "photo.jpg",
    ],
)
def test_a_changed_file_is_refused_or_kept_and_shown(demo, name):
    data, door, field, where, change = doors(demo)[name]
    assert (
        len(data) > 100 and demo.post(door, {field: (io.BytesIO(data), name)}, page=where).status_code == 302
    ), "the good file"
    dice = random.Random(name)
    for _ in range(TIMES if name != "photo.jpg" else 5):  # each in a process of its own
        spoiled = change(data, dice)
        answer = demo.post(door, {field: (io.BytesIO(spoiled), name)}, page=where)
        assert answer.status_code in (302, 400, 413, 422), (answer.status_code, spoiled[:300])
        if answer.status_code == 302:
            assert demo.get(answer.headers["Location"]).status_code == 200, spoiled[:300]
    assert demo.get(where).status_code == 200


def test_a_changed_mesh_is_refused_or_measured(demo):
    good = demo.get(f"/shapes/{FERRY_RUNNER}/body.stl").data[: 84 + 50 * 400]
    good = good[:80] + (400).to_bytes(4, "little") + good[84:]
    dice, token = (
        random.Random("mesh"),
        re.search(r'name="csrf-token" content="([^"]+)"', demo.get("/").text).group(1),
    )
    for _ in range(TIMES):
        sent = {"mesh": (io.BytesIO(changed_bytes(good, dice)), "a.stl")}
        job = demo.http.post(
            "/shapes/bring-in/mesh", data=sent, headers={"X-CSRFToken": token, "Accept": "application/json"}
        ).json["job"]
        state = until(
            lambda: demo.get(f"/shapes/bring-in/mesh/{job}"),  # noqa: B023
            lambda state: state.status_code != 200 or state.json["done"],
        )
        assert state.status_code == 200 and (state.json["problem"] or state.json["size"])
