"""Style sheets with one declaration a line, and no more of our own than is allowed.

`python scripts/format_css.py [--check]`.
"""

import re
import sys
from pathlib import Path

import cssbeautifier

STYLES = Path(__file__).parent.parent / "src/lamsik/web/static/css"
MOST_LINES = 700
"""What the toolkit has is said by its variables and utilities; own rules are for what it has not."""
APART = re.compile(r"tokens|fonts|print|card|pack")
"""Tokens, faces and paper are not counted."""


def formatted(text: str) -> str:
    """The sheet as it is kept."""
    options = cssbeautifier.default_options()
    options.indent_size, options.end_with_newline = 2, True
    options.newline_between_rules = False
    return str(cssbeautifier.beautify(text, options))


def main() -> int:
    """Format all of ours; with `--check` only say which are not."""
    off = []
    for path in sorted(STYLES.glob("*.css")):
        text = path.read_text(encoding="utf-8")
        if formatted(text) != text:
            off.append(path)
            if "--check" not in sys.argv:
                path.write_text(formatted(text), encoding="utf-8")
    own = sum(
        len(path.read_text(encoding="utf-8").splitlines())
        for path in STYLES.glob("*.css")
        if not APART.search(path.stem)
    )
    if own >= MOST_LINES:
        print(f"own rules: {own} lines (wanted: under {MOST_LINES})")
        return 1
    if "--check" in sys.argv and off:
        print("\n".join(f"{path} wants `make format`" for path in off))
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
