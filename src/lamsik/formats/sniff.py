"""What a file is, by how it begins: said where it was put into the wrong box."""

BEGINS = (
    (b"\x89PNG", "a picture"),
    (b"\xff\xd8\xff", "a picture"),
    (b"GIF8", "a picture"),
    (b"%PDF", "a PDF"),
    (b"PK\x03\x04", "a ZIP or office file"),
    (b"SQLite format 3\x00", "a shop or its backup"),
    (b"{", "a JSON file"),
    (b"[", "a JSON file"),
    (b"<svg", "an SVG drawing"),
)
HEAD, TRIANGLE = 84, 50


def kind_of(data: bytes, wanted: str = "") -> str:
    """The file in words, such as "an STL mesh", "an empty file", "a file of another kind"; empty where it
    seems to be what was wanted.
    """
    kind = _kind(data)
    return "" if kind == wanted else kind


def _kind(data: bytes) -> str:
    if not data.strip():
        return "an empty file"
    start = data[:4000].removeprefix(b"\xef\xbb\xbf").lstrip()
    if start[:5].lower() == b"solid" and b"facet" in data[:4000].lower():
        return "an STL mesh"
    if len(data) >= HEAD and len(data) == HEAD + TRIANGLE * int.from_bytes(data[80:HEAD], "little"):
        return "an STL mesh"
    if data[4:12] in (b"ftypheic", b"ftypheix", b"ftypmif1"):
        return "a picture"
    if data[8:12] == b"WEBP":
        return "a picture"
    if start[:5] == b"<?xml" and b"<svg" in start:
        return "an SVG drawing"
    if start[:1] == b"0" and b"SECTION" in start[:200]:
        return "a DXF drawing"
    return next((says for begins, says in BEGINS if start.startswith(begins)), "a file of another kind")
