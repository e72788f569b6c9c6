"""JSON as people read it: indented, in UTF-8, numbers without the noise of binary fractions (23.2, not
23.200000000000003).
"""

import json
from typing import Any

DIGITS = 12
"""Significant digits that are written: a thousandth of a millimetre in a million kilometres."""


def json_text(value: Any) -> str:
    """The text of plain values. Raises ValueError for NaN and infinity."""
    return json.dumps(tidied(value), ensure_ascii=False, indent=2, allow_nan=False) + "\n"


def tidied(value: Any) -> Any:
    """The same with its numbers at twelve significant digits."""
    if isinstance(value, float):
        return float(f"{value:.{DIGITS}g}")
    if isinstance(value, dict):
        return {name: tidied(one) for name, one in value.items()}
    if isinstance(value, list | tuple):
        return [tidied(one) for one in value]
    return value
