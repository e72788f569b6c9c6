"""What a scheme's page shows: the coats on a reference bait, in order, with what each takes and waits."""

from typing import Any

from lamsik.core.paints.coats import Coat
from lamsik.core.paints.layers import KINDS
from lamsik.core.tank import evaluate
from lamsik.documents.rows import Document
from lamsik.documents.schemes.document import read
from lamsik.drawings.body import paint_view
from lamsik.web.paints.view import CoatRow, SchemePanel, SchemeView
from lamsik.web.shared.cards import reference
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, edit, plain
from lamsik.words.quantities import said


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    coats = read(document)
    head = Head(
        fields=fields({**document, "typed": {}}, "mm"),
        settled=True,
        near=None,
        sentence=_sentence(coats),
        selected={},
    )
    return plain(SchemeView(head, _scheme(coats)))


def _scheme(coats: tuple[Coat, ...]) -> SchemePanel:
    design = reference(coats)
    dry = {
        part.key: part.mass_g for part in evaluate.drag(design).budget.parts if part.key.startswith("coat:")
    }
    waits = said(sum(coat.wait_h for coat in coats), "time", digits=0)
    return SchemePanel(
        picture=paint_view(design),
        coats=[_row(coat, n, dry.get(f"coat:{coat.key}", 0.0)) for n, coat in enumerate(coats, start=1)],
        no_coats=not coats,
        facts=[
            Fact(
                "dry",
                "Dry",
                said(sum(dry.values()), "mass"),
                "all coats on the reference bait",
                estimate=True,
            ),
            Fact("waits", "Waiting", waits, "all waits, one after the other"),
        ],
    )


def _sentence(coats: tuple[Coat, ...]) -> str:
    if not coats:
        return "No coat yet: add the first."
    hours = sum(coat.wait_h for coat in coats)
    return (
        f"{len(coats)} {'coat' if len(coats) == 1 else 'coats'}, {hours:.0f} h of waiting until it is cured."
    )


def _row(coat: Coat, order: int, dry_g: float) -> CoatRow:
    path = f"coats.{coat.key}"
    return CoatRow(
        key=coat.key,
        order=f"{order}. {coat.role}",
        name=f"{path}.name",
        name_says=f"Name of coat {order}",
        colour=f"{path}.colour",
        colour_says=f"Colour of {coat.name}",
        film=f"{path}.film_um",
        film_says=f"Dry film of {coat.name}",
        is_film=coat.mass_g is None,
        pair=f"{said(coat.mass_g, 'mass')} the pair" if coat.mass_g is not None else "",
        wait=f"{path}.wait_h",
        wait_says=f"Wait after {coat.name}",
        count=f"{path}.count",
        count_says=f"How many {coat.role}",
        has_count=KINDS[coat.role].is_counted,
        dry=said(dry_g, "mass"),
        up=edit("up", key=coat.key),
        up_says=f"Move {coat.name} up",
        first="it goes on first already" if order == 1 else "",
        remove=edit("remove", group="coats", key=coat.key),
        remove_says=f"Take {coat.name} off",
    )
