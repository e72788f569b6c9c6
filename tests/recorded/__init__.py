"""Two hundred documents of all kinds and what the benches show of them, as recorded: what is rebuilt has to show the same.

`python -m tests.recorded` records anew what is shown, and the difference is for the commit to explain; with `--draw` other
documents are drawn by lot first.
"""

import json
import re
from collections.abc import Iterator
from pathlib import Path
from random import Random
from typing import Any

FOLDER = Path(__file__).parent
DOCUMENTS, SHOWN = FOLDER / "documents.jsonl", FOLDER / "shown.jsonl"
BODIES, FLOATS, MOULDS = range(15, 31), range(37, 47), range(53, 59)
COUNTS = {"body": 110, "float": 50, "mould": 40}
LEFT_OUT = {"picture", "pictures", "fields", "selected", "edit", "refit_edit", "how", "remove", "pair", "typed", "action", "caution", "cautions"}
"""Drawings, what only repeats the document or an edit, and explanations that hold no figure of their own."""
EVERY_FOURTH = 4
"""Of so many bodies one has its ballast looked for."""
NUMBER = re.compile(r"[-−+]?\d+(?:\.\d+)?")


def told(value: Any) -> Any:
    """A view without its drawings, numbers to six digits."""
    if isinstance(value, dict):
        return (
            None
            if "tag" in value and "children" in value
            else {name: told(one) for name, one in value.items() if name not in LEFT_OUT and not name.endswith(("path", "_says"))}
        )
    if isinstance(value, list):
        return [told(one) for one in value]
    return float(f"{value:.6g}") if isinstance(value, float) else value


def shown(visitor: Any, document: dict[str, Any], deep: bool = False) -> dict[str, Any]:
    """All that the benches say of a document, by bench; the answers for its ballast too where it is looked at deeply."""
    kind = document["format"].split("-")[1].split("/")[0]
    if kind == "body":
        found = {}
        for bench in ("tank", "shapes", "paints"):
            answer = _live(visitor, "/designs/15/live", document, bench)
            if "view" in answer and answer["view"].get("late"):
                answer["view"] |= _live(visitor, "/designs/15/live", document, bench, "late")["view"]
            found[bench] = told(answer.get("view", answer))
        if deep:
            found["answers"] = told(visitor.send("/designs/15/ballast", {"document": document, "bench": "tank"}).json)
        return found
    url = {"float": "/floats/37/live", "mould": "/moulds/53/live"}[kind]
    answer = _live(visitor, url, document, "")
    return {kind: told(answer.get("view", answer))}


def _live(visitor: Any, url: str, document: dict[str, Any], bench: str, mode: str = "settled") -> dict[str, Any]:
    answer: dict[str, Any] = visitor.send(url, {"document": document, "bench": bench, "edits": [], "mode": mode, "base": 1}).json
    return answer


def apart(was: Any, now: Any, path: str = "") -> Iterator[str]:
    """Where two tellings differ by more than the rounding of their figures."""
    if isinstance(was, dict) and isinstance(now, dict):
        for name in sorted({*was, *now}):
            yield from apart(was.get(name), now.get(name), f"{path}.{name}")
    elif isinstance(was, list) and isinstance(now, list) and len(was) == len(now):
        for at, (one, other) in enumerate(zip(was, now, strict=True)):
            yield from apart(one, other, f"{path}[{at}]")
    elif not _alike(was, now):
        yield f"{path}: {was!r} → {now!r}"


def _alike(was: Any, now: Any) -> bool:
    if isinstance(was, float | int) and isinstance(now, float | int) and not isinstance(was, bool):
        return abs(was - now) <= 1e-3 + 1e-4 * abs(was)
    if isinstance(was, str) and isinstance(now, str):
        figures = list(zip(NUMBER.findall(was), NUMBER.findall(now), strict=False))
        return NUMBER.sub("#", was) == NUMBER.sub("#", now) and all(_close(one, other) for one, other in figures)
    return bool(was == now)


def _close(one: str, other: str) -> bool:
    """Whether two figures differ by no more than their last digit."""
    digits = len(one.partition(".")[2])
    return abs(float(one.replace("−", "-")) - float(other.replace("−", "-"))) <= 1.01 * 10.0**-digits


def recorded() -> list[tuple[dict[str, Any], dict[str, Any]]]:
    """The documents, each with what was shown of it."""
    pairs = zip(DOCUMENTS.read_text(encoding="utf-8").splitlines(), SHOWN.read_text(encoding="utf-8").splitlines(), strict=True)
    return [(json.loads(document), json.loads(shown)) for document, shown in pairs]


def drawn(visitor: Any) -> list[dict[str, Any]]:
    """Documents of the demo shop, changed by edits that are drawn by lot; those that are refused are not made."""
    random, found = Random(7), []
    begun = {
        "body": [("/designs", key, f"/shapes/{key}/body.json") for key in BODIES],
        "float": [("/floats", key, f"/floats/{key}/float.json") for key in FLOATS],
        "mould": [("/moulds", key, f"/moulds/{key}/mould.json") for key in MOULDS],
    }
    for kind, starts in begun.items():
        documents = [(root, key, json.loads(visitor.get(url).text)) for root, key, url in starts]
        documents = [row for row in documents if "mesh_data" not in row[2] and not (row[2].get("body") or {}).get("mesh")]
        for n in range(COUNTS[kind]):
            root, key, document = documents[n % len(documents)]
            for edit in edits(random, kind, document, 0 if n < len(documents) else random.randint(1, 6)):
                answer = visitor.send(f"{root}/{key}/live", {"document": document, "bench": "shapes", "edits": [edit], "mode": "settled", "base": 1}).json
                document = document if answer.get("errors", True) else answer["document"]
            found.append(document)
    return found


def edits(random: Random, kind: str, document: dict[str, Any], count: int) -> list[dict[str, Any]]:
    """So many edits of a document, any of what a maker does."""
    figures = [(path, value) for path, value in leaves(document) if not path.startswith("typed") and value]
    special = {
        "body": [
            {"do": "form", "form": random.choice(("slim", "stubby", "popper", "walker", "glider", "deepflank"))}, {"do": "hooks", "code": random.choice(("tre-4", "tre-6", "tre-8"))},
            {"do": "material", "name": random.choice(("balsa", "basswood", "beech", "red cedar"))}, {"do": "water", "name": random.choice(("sea water", "fresh water", "Holm mere"))},
            {"do": "want", "behaviour": random.choice(("floats", "slow rise", "suspends", "slow sink", "sinks"))}, {"do": "clear", "count": random.randint(0, 5)},
            {"do": "joint", "kind": random.choice(("pin", "linked"))}, {"do": "hollow", "on": True}, {"do": "pour"}, {"do": "cavity", "code": "steel ball 6 mm"},
            {"do": "trial", "place": "belly"}, {"do": "allow", "kind": random.choice(("paint", "glue", "hooks"))}, {"do": "scale", "percent": random.choice((80, 95, 120))},
            {"do": "turned", "on": True}, {"do": "tie", "seat": random.choice(("nose", "lip", "back", "belly"))}, {"do": "scheme", "code": f"S-00{random.randint(1, 9)}"},
            {"do": "hold", "name": "sea water"}, {"do": "pose", "deg": random.choice((-8, 0, 12))}, {"do": "lip", "code": random.choice(("lip-s", "lip-m", "lip-l"))},
        ],
        "float": [
            {"do": "add", "group": "parts", "kind": random.choice(("loading", "stem", "body"))}, {"do": "add", "group": "marks"}, {"do": "water", "name": "sea water"},
            {"do": "size", "text": f"{random.uniform(1, 8):.1f} g", "by": random.choice(("length", "diameter"))}, {"do": "material", "key": "body", "name": "balsa"},
        ],
        "mould": [
            {"do": "arrange", "count": random.randint(1, 4)}, {"do": "vents"}, {"do": "tilt"}, {"do": "parting"}, {"do": "fit"}, {"do": "add", "group": "wells"},
            {"do": "set", "path": "pull", "text": random.choice(("side", "back", "nose"))}, {"do": "set", "path": "kind", "text": random.choice(("two-part", "press", "open", "split"))},
        ],
    }[kind]  # fmt: skip
    sizes = [{"do": "set", "path": path, "value": round(value * random.uniform(0.8, 1.25), 2)} for path, value in random.sample(figures, min(6, len(figures)))]
    return [random.choice(special if random.random() < 0.6 else sizes) for _ in range(count)]


def leaves(value: Any, path: str = "") -> Iterator[tuple[str, float]]:
    """Every figure of a document with its path."""
    if isinstance(value, dict):
        for name, one in value.items():
            yield from leaves(one, f"{path}.{name}" if path else name)
    elif isinstance(value, list):
        for row in value:
            if isinstance(row, dict) and "key" in row:
                yield from leaves(row, f"{path}.{row['key']}")
    elif isinstance(value, float):
        yield path, value
