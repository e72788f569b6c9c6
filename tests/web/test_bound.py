"""What templates, modules and styles say to each other by name: attributes, ids, and the fields of a view
that are bound.
"""

import json
import re
from dataclasses import is_dataclass
from html.parser import HTMLParser
from pathlib import Path
from typing import get_args, get_type_hints

import pytest

from lamsik.web.bodies.view import PaintView, ShapeView, TankView
from lamsik.web.floats.shots_view import TableView
from lamsik.web.floats.view import FloatView
from lamsik.web.mixes.view import ProductView
from lamsik.web.moulds.view import MouldView
from lamsik.web.paints.view import SchemeView
from lamsik.web.shapes.blade_view import BladeView
from lamsik.web.shared.view import panel_of
from tests.demo_rows import (
    CASTING_RESIN,
    ESTUARY_BLADE,
    FERRY_RUNNER,
    FOAM_PILOT,
    PRINT_RATTLER,
    SPLIT_EEL,
    STUBBY_FOUR_AT_ONCE,
    TENCH_ANTENNA_2_5_G,
    TOLLHOUSE,
    WEED_TADPOLE_SOFT,
    WEIGHED_SHOT,
    ZANDER_CLAY,
)

WEB = Path(__file__).parent.parent.parent / "src/lamsik/web"
VOID = {"area", "base", "br", "col", "hr", "img", "input", "link", "meta", "source", "wbr"}


def texts(folder: str, kind: str) -> str:
    return "\n".join(
        path.read_text(encoding="utf-8")
        for path in sorted((WEB / folder).rglob(f"*.{kind}"))
        if "vendor" not in path.parts
    )


TEMPLATES, MODULES, STYLES, PICTURES = (
    texts("templates", "html"),
    texts("static/js", "js"),
    texts("static/css", "css"),
    texts("", "py") + texts("../drawings", "py"),
)


def dashed(name: str) -> str:
    return re.sub(r"[A-Z]", lambda letter: f"-{letter.group().lower()}", name)


def read_by_modules() -> set[str]:
    """Attributes that a module or a style looks at."""
    found = set(re.findall(r"\[data-([a-z-]+)", MODULES + STYLES)) | {
        dashed(name) for name in re.findall(r"dataset\.(\w+)", MODULES)
    }
    found |= {dashed(name) for name in re.findall(r'"(\w+)" in \w+\.dataset', MODULES)} | set(
        re.findall(r'"data-([a-z-]+)"', MODULES)
    )
    for names in re.findall(r"const \{(.*)\} = \w+\.dataset", MODULES):
        found |= {dashed(re.match(r"\w+", name.strip())[0]) for name in names.split(",")}
    return found


def test_every_attribute_of_a_page_is_read_by_a_module_and_every_one_read_is_given():
    given = set(re.findall(r"data-([a-z]+(?:-[a-z]+)*)", TEMPLATES)) | {
        name.replace("_", "-") for name in re.findall(r"\bdata_([a-z_]+)", PICTURES)
    }
    set_by_modules = {dashed(name) for name in re.findall(r"dataset\.(\w+) (?:\?\?)?= ", MODULES)} | set(
        re.findall(r'"data-([a-z-]+)":', MODULES)
    )
    read = read_by_modules()
    ours = {name for name in given | read if not name.startswith("bs-")}  # those are the toolkit's
    assert given & ours - read == {"outline"}  # the prints' true outlines, for who measures them
    assert read & ours - given - set_by_modules == set()


def test_every_id_a_module_asks_for_is_on_a_page():
    asked = set(re.findall(r'(?:\bat|getElementById|chosen|\$)\("([\w-]+)"\)', MODULES)) | set(
        re.findall(r'querySelector(?:All)?\("#([\w-]+)', MODULES)
    )
    given = set(re.findall(r'\bid="([\w-]+)"', TEMPLATES))
    assert asked - given == set()


class Bound(HTMLParser):
    """The fields that a page binds: (the lists they are rows of, field)."""

    def __init__(self) -> None:
        super().__init__()
        self.open: list[tuple[str, tuple[str, ...]]] = []
        self.found: set[tuple[tuple[str, ...], str]] = set()

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = {name.removeprefix("data-"): value or "" for name, value in attrs if name.startswith("data-")}
        here = self.open[-1][1] if self.open else ()
        names = [
            given[name]
            for name in ("text", "show", "hide", "grey", "picture", "selected-value", "checked", "ticked")
            if name in given
        ]
        names += [
            pair.split(":")[1].removeprefix("!")
            for name in ("class", "attr")
            if name in given
            for pair in given[name].split(";")
        ]
        self.found |= {(here, name) for name in names}
        if "each" in given:
            self.found.add((here, given["each"]))
        if tag not in VOID:
            self.open.append((tag, (*here, given["each"]) if "each" in given else here))

    def handle_endtag(self, tag: str) -> None:
        while self.open and self.open.pop()[0] != tag:
            pass


def names_of(view: type) -> dict[str, object]:
    """The names of a view or a row and what they hold; panels side by side."""
    found = {}
    for name, hint in get_type_hints(view).items():
        panel = panel_of(hint)
        found |= names_of(panel) if panel else {name: hint}
    return found


def inside(hint: object) -> type | None:
    """The dataclass that a name holds, or of which it holds a row each."""
    kinds = [one for one in (hint, *get_args(hint)) if isinstance(one, type)]
    return next((one for one in kinds if is_dataclass(one)), None)


def found_at(view: type, path: tuple[str, ...]) -> tuple[type, str] | None:
    """Where a bound path leads: the dataclass and its name, None where it leads nowhere."""
    for name in path[:-1]:
        view = inside(names_of(view).get(name)) if view else None
    return (view, path[-1]) if view and path[-1] in names_of(view) else None


ADDED_BY_MODULES = {"before", "answers", "differences", "fields"}
"""Rows that a module binds beside its view: before and after of a trial, answers of the core; and typed
figures, which are known by their path in the document.
"""
PAGES = {
    TankView: (f"/tank/{FERRY_RUNNER}", "tank"),
    ShapeView: (f"/shapes/{FERRY_RUNNER}", "shapes"),
    PaintView: (f"/paints/on/{FERRY_RUNNER}", "paints"),
    SchemeView: (f"/paints/{ZANDER_CLAY}", "paints"),
    FloatView: (f"/floats/{TENCH_ANTENNA_2_5_G}", "floats"),
    MouldView: (f"/moulds/{STUBBY_FOUR_AT_ONCE}", "moulds"),
    TableView: (f"/floats/shots/{WEIGHED_SHOT}", "shots"),
    BladeView: (f"/shapes/blades/{ESTUARY_BLADE}", "blades"),
    ProductView: (f"/mixes/products/{CASTING_RESIN}", "mixes"),
}


def test_a_view_says_what_its_page_binds_and_pages_bind_what_their_views_say(demo):
    met = set()
    for view, (url, bench) in PAGES.items():
        page = Bound()
        page.feed(demo.get(url).text)
        bound = {(*lists, *name.split(".")) for lists, name in page.found}
        bound = {path for path in bound if path[0] not in ADDED_BY_MODULES}
        assert {path for path in bound if not found_at(view, path)} == set()
        met |= {found_at(view, path[:n]) for path in bound for n in range(1, len(path) + 1)}
        modules = texts("static/js/shared", "js") + texts(f"static/js/{bench}", "js")
        met |= {(view, name) for name in re.findall(r"\b(?:view|sent)\??\.(\w+)", modules)}
    rows = dict.fromkeys(row for view in PAGES for row in rows_of(view))
    idle = [f"{row.__name__}.{name}" for row in rows for name in names_of(row) if (row, name) not in met]
    assert not (found := [name for name in idle if not name.endswith(".key")]), ", ".join(found)


def rows_of(view: type) -> list[type]:
    """The view and all rows in it."""
    found = [view]
    for row in found:
        assert row.__doc__ and not row.__doc__.startswith(f"{row.__name__}("), f"{row.__name__} says nothing"
        found += [one for hint in names_of(row).values() if (one := inside(hint)) and one not in found]
    return found


def reached(view: dict, lists: tuple[str, ...]) -> list[dict]:
    """All rows under these lists of lists."""
    rows = [view]
    for name in lists:
        rows = [one for row in rows for one in value(row, name) or []]
    return rows


def value(row: dict, path: str) -> object:
    for name in path.split("."):
        row = None if row in (None, {}) else row.get(name, MISSING) if isinstance(row, dict) else MISSING
        if row is MISSING:
            raise KeyError(path)
    return row


MISSING = object()


def whole(value):
    """What the page makes of what it is sent."""
    if isinstance(value, dict):
        if "*" in value:
            return {name: one for piece in value["*"] for name, one in whole(piece).items()}
        return whole(value["v"]) if "#" in value else {name: whole(one) for name, one in value.items()}
    return [whole(one) for one in value] if isinstance(value, list) else value


@pytest.mark.parametrize(
    "urls",
    [
        (f"/tank/{FERRY_RUNNER}", f"/tank/{TOLLHOUSE}", f"/tank/{SPLIT_EEL}", f"/tank/{PRINT_RATTLER}"),
        (f"/shapes/{FERRY_RUNNER}", f"/shapes/{SPLIT_EEL}", f"/shapes/{PRINT_RATTLER}"),
        (f"/paints/on/{FERRY_RUNNER}",),
        (f"/paints/{ZANDER_CLAY}",),
        (f"/floats/{TENCH_ANTENNA_2_5_G}", f"/floats/{FOAM_PILOT}"),
        (f"/moulds/{STUBBY_FOUR_AT_ONCE}", f"/moulds/{WEED_TADPOLE_SOFT}"),
    ],
)
def test_every_field_a_page_binds_is_in_what_it_is_sent(demo, urls):
    for url in urls:
        text = demo.get(url).text
        state = json.loads(re.search(r'id="state">(.*?)</script>', text, re.S).group(1))
        sent = {
            "document": state["document"],
            "base": state["base"],
            "bench": state["bench"],
            "edits": [],
            "mode": "settled",
        }
        live = f"{state.get('root', '/designs')}/{state['id']}/live"
        view = demo.send(live, sent).json["view"]
        if view.get("late"):
            view |= demo.send(live, {**sent, "mode": "late"}).json["view"]
        page = Bound()
        page.feed(text)
        assert len(page.found) > 5
        for lists, name in page.found:
            if (lists or (name,))[0].split(".")[0] in ADDED_BY_MODULES:
                continue
            for row in reached(view, lists):
                try:
                    value(row, name)
                except KeyError:
                    raise AssertionError(
                        f"{url} binds {name} of {lists or 'the view'}, which is not sent: {sorted(row)}"
                    ) from None
