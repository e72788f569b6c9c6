"""Templates of at most 120 columns. `python scripts/format_templates.py [--check]`.

A line is broken only where the page comes out the same: at space that is there already, beside a tag of a
block, inside what lays its children out itself, between two statements. What is too long and has no such
place is named, to be broken by hand.
"""

import re
import sys
from dataclasses import dataclass, field
from pathlib import Path

TEMPLATES = Path(__file__).parent.parent / "src/lamsik/web/templates"
COLUMNS = 120


def _names(words: str) -> frozenset[str]:
    return frozenset(words.split())


BLOCK = _names(
    "address article aside body datalist details dialog div dl dt dd fieldset figure "
    "figcaption footer form h1 h2 h3 h4 head header html legend li link main meta nav ol "
    "optgroup option p section select summary table tbody td template tfoot th thead title "
    "tr ul script style"
)
"""Space beside the tags of these is not shown."""
LOOSE = _names("datalist dl head html ol optgroup select svg g defs table tbody thead tr ul")
LOOSE_CLASSES = _names("field pair triple quad form-row tools facts filter weigh-form")
"""Space between the children of these is not shown either."""
VOID = _names("area base br col embed hr img input link meta source track wbr")
OPENS = _names("if for macro block call filter")
TOKEN = re.compile(
    r"(?P<comment>{#.*?#})|(?P<statement>{%.*?%})|(?P<value>{{.*?}})|(?P<end></[a-zA-Z][^>]*>)"
    r"|(?P<start><[a-zA-Z][\w-]*)|(?P<newline>\n)|(?P<other>.)",
    re.DOTALL,
)


@dataclass
class Place:
    """Where a line may be broken: how much is skipped, how good a place it is, how deep the rest lies."""

    at: int
    skip: int
    rank: int
    depth: int


@dataclass
class Reader:
    """A template read once from front to end."""

    text: str
    places: list[Place] = field(default_factory=list)
    parents: list[tuple[str, bool]] = field(default_factory=list)
    depth: int = 0
    in_tag: str = ""
    tag_text: str = ""
    quote: str = ""
    last: str = "newline"

    def read(self) -> list[Place]:
        """All places, in order."""
        for token in TOKEN.finditer(self.text):
            kind, word = str(token.lastgroup), token.group()
            if kind == "statement":
                self._statement(token.start(), word)
            elif kind in ("value", "comment"):
                if not self.in_tag and self._is_loose() and self.last in (">", "end", "value"):
                    self._add(token.start(), 0, 1, self.depth)
                self._inside(token.start(), word, 3)
            elif kind == "end" and not self.in_tag:
                self._end(token.start(), word)
            elif kind == "start" and not self.in_tag:
                self._before(token.start(), word[1:])
                self.in_tag, self.tag_text = word[1:], ""
            else:
                self._character(token.start(), word)
            self.last = kind if kind != "other" else word
        return self.places

    def _add(self, at: int, skip: int, rank: int, depth: int) -> None:
        self.places.append(Place(at, skip, rank, depth))

    def _before(self, at: int, name: str) -> None:
        if self.last == "newline" or self.last.isspace():
            return
        if name in BLOCK or self._is_loose() or self.last == "block":
            self._add(at, 0, 1, self.depth)

    def _is_loose(self) -> bool:
        return bool(self.parents) and self.parents[-1][1]

    def _end(self, at: int, word: str) -> None:
        name = word[2:-1].strip()
        names = [parent for parent, _ in self.parents]
        if name in names:
            while self.parents.pop()[0] != name:
                self.depth -= 1
            self.depth -= 1
        if name in BLOCK and not self.last.isspace():
            self._add(at, 0, 2, self.depth)
        self._after(at + len(word), name)

    def _after(self, at: int, name: str) -> None:
        if name in BLOCK or self._is_loose():
            self._add(at, 0, 1, self.depth)

    def _statement(self, at: int, word: str) -> None:
        name = (re.findall(r"\w+", word) or [""])[0]
        if name.startswith("end"):
            self.depth -= 1
        depth = self.depth - (name in ("else", "elif"))
        free = not self.in_tag
        if free and (self.last == "statement" or (self._is_loose() and self.last in (">", "end"))):
            self._add(at, 0, 1, depth)
        if self.quote == "":
            self._inside(at, word, 3)
        if name in OPENS or (name == "set" and "=" not in word):
            self.depth += 1
        if free and self._is_loose():
            self._add(at + len(word), 0, 1, self.depth)

    def _inside(self, at: int, word: str, rank: int) -> None:
        quote, nested = "", 0
        named = word.find(" in ") if word.startswith("{% for") else 0
        for number, letter in enumerate(word):
            if quote:
                quote = "" if letter == quote else quote
            elif letter in "'\"":
                quote = letter
            elif letter in "([{":
                nested += 1
            elif letter in ")]}":
                nested -= 1
            elif letter == " " and 2 < number < len(word) - 3:
                worse = nested + (word[number - 1] != ",") + 4 * (number <= named)
                self._add(at + number, 1, rank + worse, self.depth + 2)

    def _character(self, at: int, letter: str) -> None:
        if not self.in_tag:
            after = self.text[at + 1 : at + 3]
            if letter == " " and not (self.last == "statement" and after == "{%"):
                self._add(at, 1, 2, self.depth)
            return
        self.tag_text += letter
        if self.quote:
            self.quote = "" if letter == self.quote else self.quote
        elif letter in "'\"":
            self.quote = letter
        elif letter == " " and not (self.last == "statement" and self.text[at + 1 : at + 3] == "{%"):
            self._add(at, 1, 3, self.depth + 2)
        elif letter == ">":
            name, self.in_tag = self.in_tag, ""
            classes = set(" ".join(re.findall(r'class="([^"]*)"', self.tag_text)).split())
            if name not in VOID and not self.tag_text.endswith("/>"):
                self.parents.append((name, name in LOOSE or bool(classes & LOOSE_CLASSES)))
                self.depth += 1
            self._after(at + 1, name)


def formatted(text: str) -> str:
    """The template as it is kept: every line too long is broken at the best of its places."""
    for _ in range(200):
        broken = _broken_once(text)
        if broken == text:
            return text
        text = broken
    return text


def _broken_once(text: str) -> str:
    """Each long line broken in two at one place."""
    places = Reader(text).read()
    found: list[str] = []
    at = 0
    for line in text.splitlines(keepends=True):
        start, at = at, at + len(line)
        bare = line.rstrip("\n")
        if len(bare) <= COLUMNS:
            found.append(line)
            continue
        indent = len(bare) - len(bare.lstrip())
        inside = [place for place in places if start + indent < place.at < start + len(bare)]
        within = [place for place in inside if place.at <= start + COLUMNS]
        if not inside:
            found.append(line)
            continue
        best = _best(within or inside[:1], start, indent)
        base = _depth_at(text, start + indent)
        least = 0 if best.rank == 1 else 2
        step = max(least, indent + 2 * (best.depth - base))
        found.append(
            bare[: best.at - start].rstrip(" ") + "\n" + " " * step + bare[best.at - start + best.skip :]
        )
        found[-1] = found[-1] + "\n"
    return "".join(found)


def _depth_at(text: str, at: int) -> int:
    reader = Reader(text[:at])
    reader.read()
    word = text[at : at + 12]
    closes = word.startswith("</") or re.match(r"{%-? *(end|else|elif)", word)
    is_within = reader.in_tag or any(
        text.rfind(a, 0, at) > text.rfind(b, 0, at) for a, b in (("{%", "%}"), ("{{", "}}"))
    )
    return reader.depth + (2 if is_within else 0) - bool(closes and not is_within)


def _best(places: list[Place], start: int, indent: int) -> Place:
    """The best: first by how good it is, then by how shallow, then the last."""
    useful = [place for place in places if place.at - start > indent + 8] or places
    return min(useful, key=lambda place: (place.rank, place.depth, -place.at))


def main() -> int:
    """Break all of ours; with `--check` only say which are too long."""
    off = []
    for path in sorted(TEMPLATES.rglob("*.html")):
        text = path.read_text(encoding="utf-8")
        if "--check" not in sys.argv:
            path.write_text(text := formatted(text), encoding="utf-8")
        off += [
            f"{path}:{number}: {len(line)} columns"
            for number, line in enumerate(text.splitlines(), 1)
            if len(line) > COLUMNS
        ]
    print("\n".join(off) or "templates: 120 columns")
    return bool(off)


if __name__ == "__main__":
    sys.exit(main())
