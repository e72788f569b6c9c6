"""Pot life and cure against temperature: a rule of thumb, and said so."""

from lamsik.core.errors import finite_between


def at_temperature(time: float, reference_c: float, at_c: float) -> float:
    """A time given at `reference_c`, at another temperature [same unit]: t·2^((T_ref − T)/10), a rule of
    thumb.
    """
    finite_between("temperature", at_c, -10.0, 60.0, "°C for a workshop")
    finite_between("reference_c", reference_c, -20.0, 250.0, "°C")
    return float(time * 2.0 ** ((reference_c - at_c) / 10.0))
