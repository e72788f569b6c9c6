"""Kinds of bought part that go on a body: what each is called, how it sits, what follows from that. A kind
more is one row here, and its drawing in `drawings/cuts.py` where it has one of its own.
"""

from dataclasses import dataclass, replace

THROUGH, OPEN, CLOSED = "through", "open", "closed"
"""A bore right through the body from nose to tail; one that stays full of water; one that is shut in."""


@dataclass(frozen=True)
class PartKind:
    """A kind of part.

    Args:
        key: its name in documents and in the shop.
        word: what it is called.
        outside_share: how much of its volume is outside the body where nobody said otherwise.
        reach_mm: how far its eye then stands off the surface.
        seats: where it goes, the first that has none of its kind; the last where all have.
        is_screwed: whether it is an eye on a shank that is screwed or glued in.
        hangs_on: the kinds whose eye it hangs on, the nearest first; empty where it sits on the body.
        bore: the bore of its own in which it lies, which takes host away; empty where it has none.
        is_rod: whether its shank is in the body and can meet what else is there.
        insert: what it is in the table of clearances; empty where no hole is drilled for it.
        cast_as: what it is to a casting that is poured round it.
        is_chosen_anew: whether another size of it is chosen where the body is scaled.
        must_have: the measures without which it is none.
        is_put_on: whether it is put on as a part; a lip has a place of its own.
    """

    key: str
    word: str
    outside_share: float = 1.0
    reach_mm: float = 0.0
    seats: tuple[str, ...] = ("belly",)
    is_screwed: bool = False
    hangs_on: tuple[str, ...] = ()
    bore: str = ""
    is_rod: bool = True
    insert: str = ""
    cast_as: str = "other"
    is_chosen_anew: bool = False
    must_have: tuple[str, ...] = ()
    is_put_on: bool = True


_SCREW = PartKind("", "", 0.4, 3.0, is_screwed=True, insert="screw", cast_as="wire", is_chosen_anew=True)
"""What is true of every eye on a shank."""

_ROWS = (
    replace(_SCREW, key="line_tie", word="line tie", seats=("nose",)),
    replace(_SCREW, key="hanger", word="hook hanger", seats=("belly", "tail")),
    PartKind("ring", "split ring", hangs_on=("hanger",), is_chosen_anew=True),
    PartKind("hook", "hook", hangs_on=("ring", "hanger"), is_chosen_anew=True),
    PartKind("lip", "lip", is_put_on=False),
    PartKind(
        "wire",
        "through-wire",
        0.15,
        bore=THROUGH,
        insert="wire",
        cast_as="wire",
        is_chosen_anew=True,
        must_have=("wire",),
    ),
    PartKind("joint", "joint hardware", is_rod=False, insert="screw"),
    PartKind("rattle", "rattle", 0.0, bore=CLOSED, insert="tube", must_have=("wire", "shank")),
    PartKind("tube", "line tube", 0.0, bore=OPEN, insert="tube", must_have=("wire", "shank", "bore")),
    PartKind("eyes", "eyes", 0.6, is_rod=False, is_chosen_anew=True),
    PartKind("skirt", "skirt"),
    PartKind("hair", "tied hair", seats=("tail",), is_rod=False),
    PartKind("soft_tail", "soft tail", seats=("tail",), is_rod=False),
    PartKind("rotor", "rotor", seats=("nose", "tail"), is_rod=False),
    PartKind("contact", "electronics contact", 0.2, seats=("belly",), is_rod=False),
)
PART_KINDS = {kind.key: kind for kind in _ROWS}
"""By their key, in the order they go on."""
