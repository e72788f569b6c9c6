"""What a paint's page shows of its document: its swatch drawn, its pots, what is wrong with its looks."""

from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.paints.colour import difference
from lamsik.core.paints.measured import FLUORESCENT, measured
from lamsik.core.paints.shelf import GUESSED, ShelfPaint
from lamsik.core.quantities import said
from lamsik.documents.paints.document import to_paint
from lamsik.documents.rows import Document
from lamsik.drawings.swatches import strip
from lamsik.web.paints.colour_view import PotRow, ShelfPaintPanel, ShelfPaintView
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import as_typed
from lamsik.web.shared.view import Head, RowField, edit, plain
from lamsik.words import colours, refusals
from lamsik.words.cautions import caution


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    paint = to_paint(document)
    head = Head(
        fields=as_typed(document),
        settled=True,
        near=None,
        sentence=colours.paint(paint),
        selected={},
    )
    return plain(ShelfPaintView(head, _panel(paint)))


def _panel(paint: ShelfPaint) -> ShelfPaintPanel:
    wrong = ""
    try:
        measured(paint.swatch, paint.kind == FLUORESCENT)
    except Refused as refused:
        wrong = f"{refusals.says(refused)}"
    off = float(difference(paint.swatch.white.row, paint.swatch.black.row))
    return ShelfPaintPanel(
        picture=strip(paint),
        facts=[
            Fact(
                "apart",
                "Over white and black",
                f"ΔE {said(off, 'number', 1)}",
                "how far its two looks lie apart, CIEDE2000: the less, the better it covers",
                estimate=paint.source == GUESSED,
            ),
            Fact("left", "Left", said(paint.left_ml, "volume", 0), "in all its pots"),
        ],
        wrong=wrong,
        guessed=paint.source == GUESSED,
        caution=caution(paint.caution) if paint.caution else "",
        glossy=paint.swatch.glossy,
        pots=[
            PotRow(
                key=pot.key,
                lot=RowField(f"pots.{pot.key}.lot", f"Lot of pot {n}"),
                left=RowField(f"pots.{pot.key}.left_ml", f"Left in pot {n}"),
                remove=edit("remove", group="pots", key=pot.key),
                remove_says=f"Take pot {n} off the shelf",
            )
            for n, pot in enumerate(paint.pots, start=1)
        ],
        no_pots=not paint.pots,
    )
