"""Ballast answers in words beside their pictures."""

from lamsik.core.tank.ballast import Answer
from lamsik.web.shared.facts import signed


def off(answer: Answer) -> str:
    """By how much it misses the want."""
    pitch = f"pitch {signed(answer.pitch_error_deg, 1)}°"
    if answer.freeboard_mm is not None and answer.freeboard_error_mm is not None:
        return (
            f"{answer.freeboard_mm:.1f} mm above the water ({signed(answer.freeboard_error_mm, 1)} mm),"
            f" {pitch} off the want"
        )
    return f"net {signed(answer.net_error_g)} g, {pitch} off the want"


def built(answer: Answer) -> str:
    """What is left and what is taken out."""
    wall = f"{answer.wall_mm:.1f} mm of wall left, " if answer.holes or answer.cavities else ""
    return f"{wall}{answer.removed_g:.2f} g of the body comes out"


def waters(answer: Answer) -> str:
    """In which of the other waters it holds, and what it does where it does not; empty if none are asked
    for.
    """
    lost = [f"{row.behaviour} in {row.water.name}" for row in answer.waters if not row.held]
    kept = [row.water.name for row in answer.waters if row.held]
    return "; ".join([*([f"holds in {', '.join(kept)}"] if kept else []), *lost])
