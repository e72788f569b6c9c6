"""Two hundred documents of all kinds and what the benches show of them, as recorded: what is rebuilt has to
show the same.

They are those of the demo shop, each changed by one to six edits drawn by lot. `python -m tests.recorded`
records anew what is shown; the difference is for the commit to explain.
"""

import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from tests.demo_rows import FERRY_RUNNER, REED_STICK_2_G, STUBBY_FOUR_AT_ONCE

FOLDER = Path(__file__).parent
DOCUMENTS, SHOWN = FOLDER / "documents.jsonl", FOLDER / "shown.jsonl"
LEFT_OUT = {
    "picture",
    "pictures",
    "fields",
    "selected",
    "edit",
    "refit_edit",
    "how",
    "remove",
    "as_in_scheme",
    "pair",
    "typed",
    "action",
    "caution",
    "cautions",
}
"""Drawings, what only repeats the document or an edit, and explanations that hold no figure of their own."""
EVERY_OTHER, EVERY_EIGHTH = 2, 8
"""Of so many bodies one is shown with what follows the verdict; one has its ballast looked for."""
NUMBER = re.compile(r"[-−+]?\d+(?:\.\d+)?")


def told(value: Any) -> Any:
    """A view without its drawings, numbers to six digits."""
    if isinstance(value, dict):
        return (
            None
            if "tag" in value and "children" in value
            else {
                name: told(one)
                for name, one in value.items()
                if name not in LEFT_OUT and not name.endswith(("path", "_says"))
            }
        )
    if isinstance(value, list):
        return [told(one) for one in value]
    return float(f"{value:.6g}") if isinstance(value, float) else value


def shown(visitor: Any, document: dict[str, Any], at: int) -> dict[str, Any]:
    """All that the benches say of the document that stands at this place of the record, by bench."""
    kind = document["format"].split("-")[1].split("/")[0]
    if kind == "body":
        found = {}
        for bench in ("tank", "shapes", "paints"):
            answer = _live(visitor, f"/designs/{FERRY_RUNNER}/live", document, bench)
            if at % EVERY_OTHER == 0 and "view" in answer and answer["view"].get("late"):
                answer["view"] |= _live(visitor, f"/designs/{FERRY_RUNNER}/live", document, bench, "late")[
                    "view"
                ]
            found[bench] = told(answer.get("view", answer))
        if at % EVERY_EIGHTH == 0:
            found["answers"] = told(
                visitor.send(f"/designs/{FERRY_RUNNER}/ballast", {"document": document, "bench": "tank"}).json
            )
        return found
    url = {"float": f"/floats/{REED_STICK_2_G}/live", "mould": f"/moulds/{STUBBY_FOUR_AT_ONCE}/live"}[kind]
    answer = _live(visitor, url, document, "")
    return {kind: told(answer.get("view", answer))}


def _live(
    visitor: Any, url: str, document: dict[str, Any], bench: str, mode: str = "settled"
) -> dict[str, Any]:
    answer: dict[str, Any] = visitor.send(
        url, {"document": document, "bench": bench, "edits": [], "mode": mode, "base": 1}
    ).json
    return answer


def apart(was: Any, now: Any, path: str = "", least: float = 1e-3) -> Iterator[str]:
    """Where two tellings differ by more than the rounding of their figures; below `least` none is told."""
    if isinstance(was, dict) and isinstance(now, dict):
        for name in sorted({*was, *now}):
            yield from apart(was.get(name), now.get(name), f"{path}.{name}", least)
    elif isinstance(was, list) and isinstance(now, list) and len(was) == len(now):
        for at, (one, other) in enumerate(zip(was, now, strict=True)):
            yield from apart(one, other, f"{path}[{at}]", least)
    elif not _alike(was, now, least):
        yield f"{path}: {was!r} → {now!r}"


def _alike(was: Any, now: Any, least: float) -> bool:
    if isinstance(was, float | int) and isinstance(now, float | int) and not isinstance(was, bool):
        return abs(was - now) <= least + 1e-4 * abs(was)
    if isinstance(was, str) and isinstance(now, str):
        figures = list(zip(NUMBER.findall(was), NUMBER.findall(now), strict=False))
        return NUMBER.sub("#", was) == NUMBER.sub("#", now) and all(
            _close(one, other) for one, other in figures
        )
    return bool(was == now)


def _close(one: str, other: str) -> bool:
    """Whether two figures differ by no more than their last digit."""
    digits = len(one.partition(".")[2])
    return abs(float(one.replace("−", "-")) - float(other.replace("−", "-"))) <= 1.01 * 10.0**-digits


def recorded() -> list[tuple[dict[str, Any], dict[str, Any]]]:
    """The documents, each with what was shown of it."""
    pairs = zip(
        DOCUMENTS.read_text(encoding="utf-8").splitlines(),
        SHOWN.read_text(encoding="utf-8").splitlines(),
        strict=True,
    )
    return [(json.loads(document), json.loads(shown)) for document, shown in pairs]
