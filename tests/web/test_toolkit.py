"""The toolkit's sheet holds what the pages name, and nothing that none does."""

import re
from pathlib import Path

SOURCES = Path(__file__).parents[2] / "src/lamsik/web"
SHEET = (SOURCES / "static/vendor/bootstrap.css").read_text(encoding="utf-8")
NAMED = "\n".join(
    path.read_text(encoding="utf-8")
    for kind in ("*.html", "*.js", "*.py")
    for path in SOURCES.rglob(kind)
    if "vendor" not in path.parts or path.name == "bootstrap.js"
)
OURS = re.compile(
    r"\b(?:btn(?:-[a-z]+)*|form-(?:control|select|check|text|label)[a-z-]*|table|btn-group|nav|nav-link"
    r"|row(?:-cols-\d)?|g-\d|visually-hidden(?:-focusable)?)\b"
)


def test_every_class_of_the_toolkit_that_a_page_names_is_in_its_sheet():
    named = {
        name
        for text in re.findall(r'class="([^"{%]*)', NAMED)
        for name in text.split()
        if OURS.fullmatch(name)
    }
    assert len(named) > 12
    assert [name for name in sorted(named) if not re.search(rf"\.{re.escape(name)}(?![\w-])", SHEET)] == []


def test_no_rule_of_the_toolkit_is_sent_that_nothing_names():
    selectors = re.sub(r"/\*.*?\*/|\{[^{}]*\}|url\([^)]*\)|:not\([^()]*\)", "{}", SHEET, flags=re.S)
    rules = set(re.findall(r"\.(-?[a-zA-Z_][\w-]*)", selectors))
    unused = [
        name for name in sorted(rules) if not re.search(rf"(?<![\w-]){re.escape(name)}(?![\w-])", NAMED)
    ]
    assert len(rules) > 12 and unused == []
