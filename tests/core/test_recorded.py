"""The core says of given figures what it said when they were recorded, and refuses from where it refused."""

import pytest

from tests.conftest import sampled
from tests.recorded import apart
from tests.recorded.cases import CASES
from tests.recorded.core import recorded_core, told

WAS = recorded_core()


@pytest.mark.parametrize("name", sampled(sorted(CASES), 3))
def test_it_says_what_it_said_and_refuses_where_it_did(name):
    assert list(apart(WAS[name], told(name), least=2e-4)) == []
