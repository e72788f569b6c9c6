"""How long layers wait: each its recoat wait before the next, the last clear its final cure."""

from collections.abc import Sequence

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.roles import CLEARS


def waits_h(layers: Sequence[Layer]) -> tuple[float, ...]:
    """Least wait after each layer [h]: coats of clear are ready after one recoat wait less, and a cure.

    Notes: a clear whose cure is not known is taken to be hard when the next coat could go on.
    """
    last = next((n for n in reversed(range(len(layers))) if layers[n].does == CLEARS), None)
    return tuple(_cured_h(layer) if n == last else layer.wait_h for n, layer in enumerate(layers))


def _cured_h(layer: Layer) -> float:
    return layer.wait_h if layer.cure_h is None else max(layer.cure_h, layer.wait_h)


def waiting_h(layers: Sequence[Layer]) -> float:
    """All waits one after the other [h]."""
    return sum(waits_h(layers))
