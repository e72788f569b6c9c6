"""What is said of paint that was mixed and used."""

from collections.abc import Mapping

from lamsik.core.learning import Learned
from lamsik.core.paints.lessons import UsedMix
from lamsik.core.quantities import said
from lamsik.words.paints import WAYS


def taught(used: UsedMix) -> str:
    """What one mix says, or what is still to be weighed."""
    went, stays = used.on_its_way_g, used.stays
    if went is None:
        return "Weigh what comes back out of cup and brush: it says how much is lost."
    lost = said(100.0 * (used.lost_g or 0.0) / went, "percent", 0) if went else "all"
    if stays is None:
        return f"{lost} stayed in cup and brush. What the pieces gain, dry, says how much stays on them."
    share = said(100.0 * stays, "percent", 0)
    return f"{lost} stayed in cup and brush; {share} of what went out stays on the pieces."


def learned(loss: Learned, stays: Mapping[str, Learned]) -> list[str]:
    """What all of them say; nothing where nothing was learned."""
    rows = []
    if loss.n:
        rows.append(f"In cup and brush: {_share(loss)}.")
    rows += [f"Stays on the body, {WAYS[by]}: {_share(one)}." for by, one in stays.items() if one.n]
    return rows


def _share(one: Learned) -> str:
    spread = f" ± {said(100.0 * one.spread, 'percent', 0)}" if one.spread is not None else ""
    return f"{said(100.0 * one.value, 'percent', 0)}{spread}, from {one.n} {'mix' if one.n == 1 else 'mixes'}"
