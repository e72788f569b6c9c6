"""What nothing asks for: functions, classes, methods and constants that neither the program nor a template
nor a module names; names of classes that stand twice; values called what anything could be.
`python scripts/dead_code.py`.
"""

import ast
import re
import sys
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

from vulture import Vulture

ROOT = Path(__file__).parent.parent / "src/lamsik"
LOOKED_AT = {"function", "class", "method", "property"}
CALLED_BY_NAME = {
    "__getattr__",  # the import of a name that a module looks up late
    "do_GET",  # http.server calls these
    "do_POST",
    "log_message",
    "handle_DATA",  # the mail library calls it
    "get_cookie_secure",  # Flask's session asks
    "pre_validate",  # WTForms calls it
    "Meta",  # WTForms reads it
    "float_",  # the command line names these in words
    "back_up",
}
ASKED_BY_TESTS = {
    "account",  # the room of a body, share by share, held against booleans of meshes
    "made",  # the schema made from the types, written by `make format`
    "body_from",  # a body from a form and three measures, as a test wants one
    "inside_of",  # the hollow as a body, to be held against a distance field
    "vessel_of_mesh",  # what floats, of any mesh
}
HOLLOW = {"found", "made"}
"""Names of values that say nothing; a *row* is one of a table or of a list in a document."""
DECORATORS = ["@*.route", "@*.get", "@*.post", "@*.before_request", "@*.after_request", "@*.errorhandler"]
DECORATORS += ["@*.app_*", "@*.command", "@*.group", "@*.context_processor", "@*.listens_for", "@app.*"]


def main() -> int:
    """Name what is dead."""
    vulture = Vulture(ignore_decorators=DECORATORS)
    vulture.scavenge([str(ROOT)], exclude=["*/migrations/versions/*"])
    pages = "\n".join(
        path.read_text(encoding="utf-8")
        for pattern in ("web/templates/**/*.html", "web/static/js/**/*.js")
        for path in sorted(ROOT.glob(pattern))
    )
    named = set(re.findall(r"\w+", pages)) | CALLED_BY_NAME | ASKED_BY_TESTS
    dead = [
        item
        for item in vulture.get_unused_code(min_confidence=60)
        if item.name not in named
        and (item.typ in LOOKED_AT or (item.typ == "variable" and item.name.isupper()))
    ]
    for item in dead:
        print(f"{item.filename}:{item.first_lineno}: {item.typ} {item.name} is named nowhere")
    twice = {name: places for name, places in classes().items() if len(places) > 1}
    for name, places in twice.items():
        print(f"class {name} stands in {' and in '.join(places)}: one name for one thing")
    hollow = list(hollow_names())
    for place, name in hollow:
        print(f"{place}: {name} says nothing of what it is")
    print(f"dead code: {len(dead)}; names twice: {len(twice)}; hollow names: {len(hollow)}")
    return bool(dead or twice or hollow)


def hollow_names() -> Iterator[tuple[str, str]]:
    """Values with a name that any value could have."""
    for path in sorted(ROOT.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            name = node.arg if isinstance(node, ast.arg) else getattr(node, "id", "")
            if name in HOLLOW and not isinstance(getattr(node, "ctx", None), ast.Load):
                yield f"{path.relative_to(ROOT)}:{node.lineno}", name


def classes() -> dict[str, list[str]]:
    """By name of a class the modules that have one."""
    places: dict[str, list[str]] = defaultdict(list)
    for path in sorted(ROOT.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.ClassDef):
                places[node.name].append(str(path.relative_to(ROOT)))
    return places


if __name__ == "__main__":
    sys.exit(main())
