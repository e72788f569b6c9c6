"""What is refused in words."""

import re
from collections.abc import Iterator
from contextlib import contextmanager

import pytest

from lamsik.core.errors import Refused
from lamsik.words import refusals


@contextmanager
def refusing(says: str) -> Iterator[pytest.ExceptionInfo[Refused]]:
    """What is done within is refused in words that this pattern finds."""
    with pytest.raises(Refused) as refused:
        yield refused
    assert re.search(says, refusals.line(refused.value)), refusals.line(refused.value)
