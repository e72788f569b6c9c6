"""A QR code as a drawing for a page or a paper."""

import io

import segno
from markupsafe import Markup


def qr(text: str) -> Markup:
    """The code of a text, as large as its box."""
    out = io.BytesIO()
    segno.make(text, error="m", micro=False).save(
        out, kind="svg", xmldecl=False, svgns=True, scale=1, border=2, omitsize=True
    )
    return Markup(out.getvalue().decode("ascii"))
