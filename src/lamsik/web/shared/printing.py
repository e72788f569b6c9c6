"""HTML to PDF, imported when used: its system library may be missing."""

from pathlib import Path

STATIC = Path(__file__).parent.parent / "static"


class CannotPrint(Exception):
    """The PDF maker's system library is not here; the message says what to install."""


def pdf(html: str) -> bytes:
    """The page as PDF with the app's own fonts; nothing is fetched from anywhere else."""
    try:
        from weasyprint import HTML, URLFetcher  # noqa: PLC0415 - needs Pango, which may be missing
    except OSError as error:
        raise CannotPrint("PDF needs the Pango library. On Debian: sudo apt-get install libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0") from error
    return bytes(HTML(string=html, base_url=f"{STATIC.as_uri()}/", url_fetcher=URLFetcher(allowed_protocols=("file",))).write_pdf())
