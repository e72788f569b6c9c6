"""Figures with a unit that are put together by hand: only the formatter of quantities knows the shop's units.

Files for exchange, instruments, the starter stock and the demo shop are metric by themselves and left out.
"""

import ast
import re
import sys
from pathlib import Path

SOURCES = Path(__file__).parent.parent / "src" / "lamsik"
METRIC = {"formats", "devices", "demo", "cli"}
OWN = {"core/quantities.py", "core/units.py", "store/starter.py"}
UNIT = r"(?:°|[ \u00a0](?:mm|cm|m|g|kg|ml|µm|°[CF]|cm/s|m/s|cm²|mm²|g/cm³|Hz|in(?! 100)|oz|ft)(?![\w²³/]))"
AFTER = re.compile(rf"^{UNIT}")
IN_TEMPLATE = re.compile(rf"(?:format\([^{{}}]*\)|_(?:mm|g|ml|c|um|cm_s|m_s|deg))\s*\}}\}}\s?{UNIT}")
BY_SCRIPT = re.compile(rf"\$\{{[^{{}}]*toFixed\([^{{}}]*\)[^{{}}]*\}}{UNIT}")


def by_hand(path: Path) -> list[str]:
    """Where a source puts a number and a unit side by side."""
    text = path.read_text(encoding="utf-8")
    if path.suffix == ".py":
        return [f"{path}:{line}" for line in _in_python(ast.parse(text))]
    pattern = IN_TEMPLATE if path.suffix == ".html" else BY_SCRIPT
    return [f"{path}:{text.count(chr(10), 0, found.start()) + 1}" for found in pattern.finditer(text)]


SAYS = {"said", "plainly", "numeral", "plain_numeral", "unit_of", "place", "time_of_day"}


def _at_import(tree: ast.AST) -> list[int]:
    """Figures said while a module is read: they would stay in the units of that moment."""
    lines = []
    for node in ast.iter_child_nodes(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef | ast.Lambda):
            continue
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in SAYS:
            lines.append(node.lineno)
        lines += _at_import(node)
    return lines


def _in_python(tree: ast.AST) -> list[int]:
    lines = _at_import(tree)
    for node in ast.walk(tree):
        if not isinstance(node, ast.JoinedStr):
            continue
        for one, after in zip(node.values, node.values[1:], strict=False):
            formatted = isinstance(one, ast.FormattedValue) and one.format_spec is not None
            if formatted and isinstance(after, ast.Constant) and AFTER.match(str(after.value)):
                lines.append(node.lineno)
    return lines


def looked_at() -> list[Path]:
    """The sources that a page, a drawing or a paper is made by."""
    found = [path for kind in ("*.py", "*.html", "*.js") for path in sorted(SOURCES.rglob(kind))]
    return [
        path
        for path in found
        if "vendor" not in path.parts
        and path.name != "units.js"
        and (short := path.relative_to(SOURCES)).parts[0] not in METRIC
        and short.as_posix() not in OWN
    ]


if __name__ == "__main__":
    hits = [hit for path in looked_at() for hit in by_hand(path)]
    print("\n".join(hits), end="\n" if hits else "")
    print(f"figures said by hand: {len(hits)}")
    sys.exit(bool(hits))
