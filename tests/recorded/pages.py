"""What every page of the demo shop says: its words and what its fields hold, figures and dates masked.

Figures are held elsewhere (`shown.jsonl`) and dates go with the day; what a page says of whom, in which order
and under which condition is held here.
"""

import json
import re
from html.parser import HTMLParser
from pathlib import Path
from urllib.parse import unquote

SEEN = Path(__file__).parent / "pages.jsonl"
SILENT = {"script", "style", "svg", "head"}
KEPT = (
    *("id", "class", "for", "name", "type", "value", "placeholder", "href", "action", "title"),
    *("aria-label", "aria-current", "aria-pressed", "aria-invalid", "aria-describedby"),
    *("data-path", "data-text", "data-wait", "data-weigh"),
)
VOID = {"input", "br", "img", "meta", "link", "hr", "source", "col", "wbr"}
TIME = re.compile(
    r"\b(?:(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)[a-z]*,? )?(?:\d{1,2} )?"
    r"(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)[a-z]*(?: \d{4})?(?:,? \d{1,2}:\d\d)?\b"
    r"|\b\d{4}-\d\d-\d\d(?:T\d\d:\d\d(?::\d\d)?)?\b|\b\d+ d(?: \d+ h)?\b"
    r"|\b\d{1,2}:\d\d(?::\d\d)?(?: h| min)?(?!\w)"
)
MASKS = (
    (re.compile(r"/(static|cards)/[0-9a-f]{16}/"), r"/\1/"),
    (TIME, "TIME"),
    (re.compile(r"[-−+]?\d+(?:[.,]\d+)?"), "#"),
)


class Words(HTMLParser):
    """The words of a page, one line for each run of text and each field, link or form."""

    def __init__(self) -> None:
        super().__init__()
        self.lines: list[str] = []
        self.silent, self.deep = "", 0

    def handle_starttag(self, tag, attrs):
        found = dict(attrs)
        if self.silent:
            self.deep += tag == self.silent
            return
        if tag in SILENT or (tag == "header" and "waterline" in (found.get("class") or "")):
            self.silent, self.deep = tag, 1
            self.lines += [f"<{tag}>"] if tag == "svg" else []
            return
        if found.get("name") in ("csrf_token", "once") or found.get("type") == "hidden":
            return
        said = [f"{name}={masked(_read(found[name]))}" for name in KEPT if found.get(name)]
        said += [
            name
            for name in ("selected", "checked", "disabled", "open", "hidden", "required")
            if name in found
        ]
        if said:
            self.lines.append(f"<{tag}> {' '.join(said)}")

    def handle_endtag(self, tag):
        if tag == self.silent:
            self.deep -= 1
            self.silent = self.silent if self.deep else ""

    def handle_data(self, data):
        text = masked(" ".join(data.split()))
        if text and not self.silent:
            self.lines.append(text)


def _read(value: str) -> str:
    """A letter in an address as it is read: what is masked are its dates, not their signs' codes."""
    return unquote(value) if value.startswith("mailto:") else value


def masked(text: str) -> str:
    """The text without what changes from day to day, and without its figures."""
    for pattern, put in MASKS:
        text = pattern.sub(put, text)
    return text


def words(page: str) -> list[str]:
    """The lines of a page."""
    reader = Words()
    reader.feed(page)
    return reader.lines


def seen() -> dict[str, list[str]]:
    """What was recorded of each page."""
    if not SEEN.exists():
        return {}
    rows = (json.loads(line) for line in SEEN.read_text(encoding="utf-8").splitlines())
    return {row["url"]: row["lines"] for row in rows}
