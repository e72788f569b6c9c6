"""Requests that no page sends: any fields with any text, any JSON, any id, to every address."""

import random
import re
from pathlib import Path

TEXTS = (
    "",
    "x",
    "-1",
    "1e400",
    "9" * 5000,
    "é",
    "<b>",
    "None",
    "2147483648",
    str(2**63),
    str(2**70),
    "nan",
    "[]",
    "{}",
    "5 mm",
    "1 g",
    "20 °C",
    "\x00",
    "a" * 70_000,
    "../../etc",
)
BODIES = (
    None,
    1,
    "x",
    [],
    [[[]]],
    {},
    {"document": {}},
    {"document": [], "edits": 1},
    {"document": {"format": "lamsik-body"}, "edits": [{"do": "hang"}]},
    {"number": 2**70},
    {"edits": [None]},
    {"bench": [1]},
    {"revision": 2**70},
    {"document": {"format": "lamsik-float", "parts": {}}},
    {"once": "x" * 22},
)
IDS = (0, 2**31, 2**63 - 1, 2**63, 10**30, *range(1, 75))
TEMPLATES = Path(__file__).parent.parent / "src/lamsik/web/templates"


def names():
    """Every field any form of ours has."""
    found = {
        name
        for file in TEMPLATES.rglob("*.html")
        for name in re.findall(r'name="([a-z_]+)"', file.read_text())
    }
    return sorted(found | {"edits", "document", "number", "revision"})


def token(client):
    return re.search(r'name="csrf-token" content="([^"]+)"', client.get("/mixes/clocks").text)[1]


def addresses(app, dice):
    """Every address once, its parts at random."""
    rules = [rule for rule in app.url_map.iter_rules() if rule.endpoint != "static"]
    dice.shuffle(rules)
    for rule in rules:
        url = rule.rule
        for whole, kind in re.findall(r"(<([^:>]*):?[^>]*>)", url):
            any_of = re.search(r"any\(([^)]*)\)", whole)
            part = (
                dice.choice(any_of[1].split(", "))
                if any_of
                else dice.choice(IDS)
                if kind == "int"
                else dice.choice(("x", "é", "a" * 300, ".."))
            )
            url = url.replace(whole, str(part), 1)
        yield rule.methods, url


def broken(app, rounds, seed):
    """Send them all so often; those that were answered with a 5xx, or not at all: (method, address, what
    was sent, answer).
    """
    dice, client, fields, found = random.Random(seed), app.test_client(), names(), []
    mark = token(client)
    for _ in range(rounds):
        for methods, url in addresses(app, dice):
            some = {dice.choice(fields): dice.choice(TEXTS) for _ in range(dice.randint(0, 6))}
            body = dice.choice(BODIES)
            asked = [("GET", {"query_string": some})] if "GET" in methods else []
            if "POST" in methods:
                asked.append(
                    (
                        "POST",
                        (
                            {"data": {**some, "csrf_token": mark}}
                            if dice.random() < 0.6
                            else {"json": body, "headers": {"X-CSRFToken": mark}}
                        ),
                    )
                )
            for method, how in asked:
                try:
                    with client.open(url, method=method, **how) as answer:
                        status = answer.status_code
                except Exception as error:
                    status = repr(error)
                if status != 501 and (not isinstance(status, int) or status >= 500):
                    found.append((method, url, how, status))
    return found
