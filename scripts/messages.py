"""What is said of what is refused and that no test has seen: `python scripts/messages.py`.

Every text given to `Refused`, `require`, a form's `ValidationError` or `abort`, and every sentence of a table
of `RULES`, in its fixed parts. It
counts as seen where a text of a test stands in it, or it in what the tests have recorded or ask for in
`tests/refused`.
"""

import ast
import re
import sys
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parent.parent
SAYERS = {"Refused": 2, "require": 3, "ValidationError": 0, "StopValidation": 0, "abort": 1}
"""Callables that say why something cannot be, and which argument says it."""
LEAST = 8
"""Shorter texts stand in too much."""


def parts_of(node: ast.expr) -> list[str]:
    """The fixed parts of a text that may hold values."""
    if isinstance(node, ast.Constant):
        return [node.value] if isinstance(node.value, str) else []
    if isinstance(node, ast.JoinedStr):
        return [part for value in node.values if isinstance(value, ast.Constant) for part in parts_of(value)]
    if isinstance(node, ast.BinOp):
        return parts_of(node.left) + parts_of(node.right)
    if isinstance(node, ast.IfExp):
        return parts_of(node.body) + parts_of(node.orelse)
    return []


def said(path: Path) -> Iterator[tuple[int, list[str]]]:
    """Line and fixed parts of every such text in a module."""
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.AnnAssign) and ast.unparse(node.target) == "REFUSALS" and node.value:
            yield from sentences(node.value)
        if isinstance(node, ast.Assign) and [ast.unparse(one) for one in node.targets] == ["RULES"]:
            yield from sentences(node.value)
        if not isinstance(node, ast.Call):
            continue
        name = node.func.id if isinstance(node.func, ast.Name) else getattr(node.func, "attr", "")
        at = SAYERS.get(name)
        if at is not None and len(node.args) > at:
            parts = [part.strip() for part in parts_of(node.args[at]) if len(part.strip()) >= LEAST]
            if parts:
                yield node.lineno, parts


def sentences(rules: ast.expr) -> Iterator[tuple[int, list[str]]]:
    """Line and fixed parts of the sentences of a table of rules."""
    for value in rules.values if isinstance(rules, ast.Dict) else ():
        fixed = [part.strip() for part in re.split(r"{[^}]+}", ast.literal_eval(value))]
        if parts := [part for part in fixed if len(part) >= LEAST]:
            yield value.lineno, parts


def texts(path: Path) -> set[str]:
    """Texts of a test, long enough to be told from others."""
    nodes = ast.walk(ast.parse(path.read_text(encoding="utf-8")))
    return {
        part.strip()
        for node in nodes
        if isinstance(node, ast.Constant | ast.JoinedStr)
        for part in parts_of(node)
        if len(part.strip()) >= LEAST and " " in part.strip()
    }


def main() -> int:
    """List them."""
    tests = ROOT / "tests"
    recorded = "\n".join(
        path.read_text(encoding="utf-8")
        for kind in ("*.jsonl", "refused/*.txt")
        for path in sorted(tests.rglob(kind))
    )
    asked = {text for path in sorted(tests.rglob("*.py")) for text in texts(path)}
    lost = [
        f"{path.relative_to(ROOT)}:{line}: {' … '.join(parts)}"
        for path in sorted((ROOT / "src/lamsik").rglob("*.py"))
        for line, parts in said(path)
        if not any(part in recorded or any(text in part for text in asked) for part in parts)
    ]
    print("\n".join([*lost, f"messages no test has seen: {len(lost)}"]))
    return bool(lost)


if __name__ == "__main__":
    sys.exit(main())
