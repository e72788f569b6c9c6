"""What was given, as it is said where it is refused."""

MOST_SHOWN = 60


def brief(value: object) -> str:
    """A value from a file or a form as a person reads it, in one short line; empty for nothing.

    No bytes, no brackets and quotes of a program's own: of what is no text or number only what it is.
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.6g}"
    if isinstance(value, bytes):
        value = value.decode("utf-8", "replace")
        if any(ord(sign) < 32 and sign not in "\r\n\t" or sign == "\ufffd" for sign in value):
            return "what is no text"
    if isinstance(value, list | tuple):
        plain = all(isinstance(one, str | int | float) for one in value)
        return brief(", ".join(map(brief, value[:12]))) if plain else f"{len(value)} of them"
    if not isinstance(value, str | int):
        return "what is of another kind"
    line = " ".join("".join(sign if sign.isprintable() else " " for sign in str(value)).split())
    return line if len(line) <= MOST_SHOWN else f"{line[: MOST_SHOWN - 1]}…"
