"""Ballast answers in words beside their pictures."""

from lamsik.core.quantities import said
from lamsik.core.tank.ballast import Answer


def off(answer: Answer) -> str:
    """By how much it misses the want."""
    pitch = f"pitch {said(answer.pitch_error_deg, 'angle', sign=True)}"
    if answer.freeboard_mm is not None and answer.freeboard_error_mm is not None:
        return (
            f"{said(answer.freeboard_mm, 'length')} above the water"
            f" ({said(answer.freeboard_error_mm, 'length', sign=True)}),"
            f" {pitch} off the want"
        )
    return f"net {said(answer.net_error_g, 'mass', sign=True)}, {pitch} off the want"


def built(answer: Answer) -> str:
    """What is left and what is taken out."""
    wall = f"{said(answer.wall_mm, 'length')} of wall left, " if answer.holes or answer.cavities else ""
    return f"{wall}{said(answer.removed_g, 'mass')} of the body comes out"


def waters(answer: Answer) -> str:
    """In which of the other waters it holds, and what it does where it does not; empty if none are asked
    for.
    """
    lost = [f"{row.behaviour} in {row.water.name}" for row in answer.waters if not row.held]
    kept = [row.water.name for row in answer.waters if row.held]
    return "; ".join([*([f"holds in {', '.join(kept)}"] if kept else []), *lost])
