"""What a wanted colour's page shows of its document: the looks beside each other, recipes from the shelf."""

from collections.abc import Mapping, Sequence
from contextlib import suppress
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.paints.colour import difference, hex_of_lab
from lamsik.core.paints.matching import Recipe
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.taught import Shelf, foretold, recipes, taught, tints
from lamsik.core.paints.wanted import WantedColour
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.documents.matches.document import to_match, word_of
from lamsik.documents.rows import Document
from lamsik.drawings.swatches import beside
from lamsik.store import shelf, stores
from lamsik.web.paints.colour_view import MatchPanel, MatchView, MixPartRow, RecipeRow
from lamsik.web.shared.db import db
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import as_typed
from lamsik.web.shared.live_document import Looking
from lamsik.web.shared.view import Head, RowField, edit, plain
from lamsik.words import colours, refusals

MOST_SHOWN = 9


def view(document: Document, sight: Looking) -> dict[str, Any]:
    """The computed part of the state."""
    match, on_shelf, mixed = to_match(document), shelf.shelf(db()), shelf.mixed(db())
    wrong = ""
    rows: tuple[Recipe, ...] = ()
    look: Array | None = None
    try:
        rows = recipes(match, on_shelf, mixed)
        look = foretold(match, tints(on_shelf, mixed), match.on)
    except Refused as refused:
        wrong = refusals.says(refused)
    head = Head(
        fields=as_typed(document),
        settled=True,
        near=None,
        sentence=_sentence(match, rows, look, dict(on_shelf)),
        selected={},
    )
    panel = _panel(match, rows, look, on_shelf)
    return plain(
        MatchView(head, MatchPanel(**panel, wrong=wrong, model=colours.model(taught(on_shelf, mixed))))
    )


def _sentence(
    match: WantedColour, rows: Sequence[Recipe], look: Array | None, paints: Mapping[str, ShelfPaint]
) -> str:
    names = {code: paint.name for code, paint in paints.items()}
    if match.is_seen and match.parts:
        off = float(difference(match.wanted.row, match.seen.row))
        return f"It came out {colours.apart(off)}."
    if look is not None:
        off = float(difference(match.wanted.row, look))
        mix = colours.recipe(((part.code, part.drops) for part in match.parts), names)
        return f"{mix}: foretold {colours.apart(off)}."
    if rows:
        return (
            f"Nearest from the shelf: {colours.recipe(rows[0].parts, names)}, {colours.apart(rows[0].off)}."
        )
    return "No paint on the shelf has looks to mix with: spray cards of two and type what you see."


def _panel(
    match: WantedColour, rows: Sequence[Recipe], look: Array | None, on_shelf: Shelf
) -> dict[str, Any]:
    paints = dict(on_shelf)
    looks = [("wanted", match.wanted.row)]
    if look is not None:
        looks.append(("foretold", look))
    if match.is_seen and match.parts:
        looks.append(("came out", match.seen.row))
    taken = word_of(tuple((part.code, int(part.drops)) for part in match.parts)) if match.parts else ""
    return {
        "picture": beside(match.name, looks),
        "facts": _facts(match, look),
        "recipes": [_recipe(n, one, paints, taken) for n, one in enumerate(rows[:MOST_SHOWN], start=1)],
        "no_recipes": "" if rows else "No recipe: the shelf has no paint whose looks are known.",
        "mixed": [_part(part.key, part.code, paints) for part in match.parts],
        "no_mix": not match.parts,
        "seen": match.is_seen,
    }


def _facts(match: WantedColour, look: Array | None) -> list[Fact]:
    facts = []
    if look is not None:
        off = float(difference(match.wanted.row, look))
        facts.append(
            Fact("off", "Foretold, off by", f"ΔE {said(off, 'number', 1)}", "CIEDE2000", estimate=True)
        )
    if match.is_seen and look is not None:
        missed = float(difference(match.seen.row, look))
        facts.append(
            Fact(
                "missed",
                "Came out, beside the foretold",
                f"ΔE {said(missed, 'number', 1)}",
                "what this swatch teaches: how strong its paints are",
            )
        )
    return facts


def _recipe(n: int, one: Recipe, paints: Mapping[str, ShelfPaint], taken: str) -> RecipeRow:
    names = {code: paint.name for code, paint in paints.items()}
    word = word_of(one.parts)
    cost = ""
    with suppress(Refused):
        cost = f"{said(one.cost, 'number', 2)} {stores.setting(db(), 'shop')['currency']}"
    return RecipeRow(
        key=f"n{n}",
        says=colours.recipe(one.parts, names),
        colour=hex_of_lab(one.look.row),
        off=f"ΔE {said(one.off, 'number', 1)}",
        drops=str(one.drops),
        cost=cost,
        take=edit("take", recipe=word),
        take_says=f"Take {colours.recipe(one.parts, names)}",
        taken=word == taken,
    )


def _part(key: str, code: str, paints: Mapping[str, ShelfPaint]) -> MixPartRow:
    paint = paints.get(code)
    name = paint.name if paint else f"{code}, not on the shelf"
    return MixPartRow(
        key=key,
        code=code,
        name=name,
        colour=hex_of_lab(paint.swatch.white.row) if paint else "#FFFFFF",
        drops=RowField(f"parts.{key}.drops", f"Drops of {name}"),
        wrong=colours.pots(paint) if paint else "",
        remove=edit("remove", group="parts", key=key),
        remove_says=f"Take {name} out of the recipe",
    )
