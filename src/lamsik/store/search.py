"""Finding text in any script: names are kept beside a folded form that search compares with."""

import unicodedata
from functools import lru_cache

_EXTRA = str.maketrans({"ł": "l", "ø": "o", "đ": "d", "ı": "i", "æ": "ae", "œ": "oe"})


@lru_cache(8192)
def fold(text: str) -> str:
    """Text for comparing: compatibility form, case folded, accents dropped (`Ärla` → `arla`).

    Only marks on Latin, Greek and Cyrillic letters are dropped; a Japanese voicing mark
    makes another word and stays.
    """
    kept: list[str] = []
    for char in unicodedata.normalize("NFKD", text.casefold()):
        if unicodedata.combining(char) and kept and not _keeps_marks(kept[-1]):
            continue
        kept.append(char)
    return " ".join(unicodedata.normalize("NFC", "".join(kept)).translate(_EXTRA).split())


def _keeps_marks(char: str) -> bool:
    return unicodedata.name(char, "").split(" ")[0] not in ("LATIN", "GREEK", "CYRILLIC")


def pattern(text: str) -> str:
    """A LIKE pattern (escape `\\`) that finds the folded text anywhere."""
    folded = fold(text)
    for sign in ("\\", "%", "_"):
        folded = folded.replace(sign, f"\\{sign}")
    return f"%{folded}%"
