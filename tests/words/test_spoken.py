"""Values in sentences, by the quantity after their colon."""

import pytest

from lamsik.core.quantities import INCHES, METRIC, counted, file_size, saying
from lamsik.words.spoken import Spoken


@pytest.mark.parametrize(
    ("says", "value", "metric", "inches"),
    [
        ("{x:length}", 25.4, "25.4 mm", "1 in"),
        ("{x:~length}", 2.0, "2 mm", "5/64 in"),
        ("{x:~#length}", 12.7, "12.7", "1/2"),
        ("{x:#mass,1}", 2.25, "2.2", "0.079"),
        ("{x:mass,2,+}", 0.5, "+0.50 g", "+0.0176 oz"),
        ("{x:.0f}", 2.4, "2", "2"),
        ("{x}", ("a", 2), "a, 2", "a, 2"),
        ("{x}", " stays as it is", " stays as it is", " stays as it is"),
        ("{x}", 0.5, "0.5", "0.5"),
    ],
)
def test_a_value_is_spoken_in_the_units_of_who_asks(says, value, metric, inches):
    for choice, spoken in ((METRIC, metric), (INCHES, inches)):
        with saying(choice):
            assert says.format(x=Spoken(value)) == spoken


@pytest.mark.parametrize(
    ("count", "says"), [(0, "0 batches"), (1, "1 batch"), (2, "2 batches"), (21, "21 batches")]
)
def test_one_is_one(count, says):
    assert counted(count, "batch", "batches") == says
    assert counted(count, "shot") == says.replace("batches", "shots").replace("batch", "shot")


@pytest.mark.parametrize(
    ("size", "says"),
    [(2_400_000, "2.4 MB"), (100_000, "0.1 MB"), (1_200, "0.001 MB"), (112_000_000, "112.0 MB")],
)
def test_a_file_has_no_bytes(size, says):
    assert file_size(size) == says
