"""Sentences in the core: it speaks by values and named findings, `words` makes sentences of them."""

import ast
import re
import sys
from pathlib import Path

CORE = Path(__file__).parent.parent / "src" / "lamsik" / "core"
NAMES = {
    ", in two densities",
    "Clear coat to come",
    "Clear, slow epoxy",
    "Foil, burnished on",
    "Glitter in clear",
    "Scales through a net",
    "Signed and numbered",
    "Splatter off a brush",
    "Veins, drawn fine",
    "Filler over the ballast",
    "G from the nose",
    "Glue to come",
    "Hooks to come",
    "Live-bait float",
    "Paint to come",
    "Seal, thinned epoxy",
    "cannot be built",
    "caps and fittings",
    "filled resin, dense",
    "filler round the slug",
    "host it replaces",
    "hot on hot",
    "imp fl oz",
    "letters and numbers",
    "metal-filled resin",
    "metal-filled resin, heavy",
    "not for sale",
    "on the line",
    "pair of holes",
    "size as made",
    "sulphur-free clay",
}
"""What something is called in a document, a setting or a table: a name, of several words."""
WORDS = re.compile(r"[A-Za-z]{2,}")
PHRASE = 3
"""Words from which a text is more than a name."""


DOCUMENTS = {"Annotated", "Between", "Says", "compile"}
"""What documents a field of a format, as a docstring does a class, or matches text: nobody is told it."""


def _unsaid(tree: ast.AST) -> set[int]:
    """Docstrings, descriptions of fields, and the parts of texts that are counted as a whole."""
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and _name(node.func) in DOCUMENTS:
            found.update(id(part) for part in ast.walk(node))
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            found.add(id(node.value))
        if isinstance(node, ast.JoinedStr):
            found.update(id(part) for part in node.values)
    return found


def _name(called: ast.AST) -> str:
    return called.attr if isinstance(called, ast.Attribute) else getattr(called, "id", "")


def is_phrase(text: str) -> bool:
    """More than a name: of several words with room between them."""
    return text not in NAMES and " " in text.strip() and len(WORDS.findall(text)) >= PHRASE


def _text(node: ast.AST) -> str:
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        return node.value
    if isinstance(node, ast.JoinedStr):
        return "…".join(str(part.value) for part in node.values if isinstance(part, ast.Constant))
    return ""


def phrases(path: Path) -> list[int]:
    """Lines where a source of the core says something in words."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    unsaid = _unsaid(tree)
    return sorted(
        getattr(node, "lineno", 0)
        for node in ast.walk(tree)
        if id(node) not in unsaid and is_phrase(_text(node))
    )


if __name__ == "__main__":
    rows = {path: phrases(path) for path in sorted(CORE.rglob("*.py"))}
    for path, lines in rows.items():
        for line in lines:
            print(f"{path}:{line}: a sentence in the core: `words` says it")
    count = sum(len(lines) for lines in rows.values())
    print(f"sentences in the core: {count}")
    sys.exit(count > 0)
