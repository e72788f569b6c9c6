"""The Floats bench: the load curve, and the way back from a load over dowels and woods."""

from itertools import count

from bench.rows import Row, median_ms
from lamsik.core.floats.design import Float, bare_table
from lamsik.core.floats.inverse import options, resized
from lamsik.core.floats.rating import curve
from lamsik.core.water import Water
from lamsik.documents.floats.document import blank, to_float

DOWELS, WOODS = (10.0, 12.0, 14.0, 16.0, 18.0, 20.0), ("balsa", "paulownia", "red cedar", "basswood")


def float_rows() -> list[Row]:
    """Rows of the Floats bench; never a float it has seen."""
    start, step = to_float(blank("Antenna", "antenna", Water("fresh water", 14.0))), count()

    def fresh() -> Float:
        return resized(start, length_mm=45.0 + 0.01 * next(step))

    def back() -> None:
        bare_table.cache_clear()
        options(fresh(), 3.0, DOWELS, WOODS)

    return [
        Row("a float's load curve, 200 points", 10, median_ms(lambda: curve(fresh()), 30)),
        Row("body length for a load, 6 dowels × 4 woods", 150, median_ms(back, 9)),
    ]
