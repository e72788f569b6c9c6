"""Kinds of eyes: which of them wait for the clear, which must lie under it."""

from dataclasses import dataclass


@dataclass(frozen=True)
class EyeKind:
    """What is true of eyes of a kind.

    Args:
        must_be_under: whether a clear has to lie over them, or they come off.
        may_be_last: whether they can be glued on after the clear.
        is_there: whether they are on the body before anything is painted, and are masked while it is.
        has_rim: whether a clear over them gathers at their rim.
    """

    must_be_under: bool = False
    may_be_last: bool = False
    is_there: bool = False
    has_rim: bool = False


EYE_KINDS = {
    "flat": EyeKind(must_be_under=True),
    "domed": EyeKind(may_be_last=True, has_rim=True),
    "moulded": EyeKind(must_be_under=True),
    "painted": EyeKind(must_be_under=True),
    "kept": EyeKind(is_there=True),
}
"""By name: flat stickers, domed ones, moulded into the body and painted, painted on it, kept from before."""
