"""The papers of an order: what each is, when it can be issued, how it is numbered."""

from dataclasses import dataclass

from lamsik.core.errors import require, rule

QUOTE, CONFIRMATION, PACKING, INVOICE, RECEIPT, CARE, LABEL, COUNTER = (
    "quote",
    "confirmation",
    "packing",
    "invoice",
    "receipt",
    "care",
    "label",
    "counter",
)


@dataclass(frozen=True)
class PaperKind:
    """What is true of every paper of a kind.

    Args:
        stem: what its numbers begin with.
        needs: what the order needs first: `price`, `accepted`, `paid`, `parcel`, `address`.
        counts: whether it says sums: only such a one is cancelled by a counter-document.
    """

    key: str
    stem: str
    needs: tuple[str, ...] = ()
    counts: bool = False


PAPER_KINDS = {
    one.key: one
    for one in (
        PaperKind(QUOTE, "Q", ("price",), counts=True),
        PaperKind(CONFIRMATION, "C", ("price", "accepted"), counts=True),
        PaperKind(PACKING, "L", ("parcel",)),
        PaperKind(INVOICE, "I", ("price", "accepted"), counts=True),
        PaperKind(RECEIPT, "R", ("paid",), counts=True),
        PaperKind(CARE, "H"),
        PaperKind(LABEL, "D", ("parcel", "address")),
        PaperKind(COUNTER, "X", counts=True),
    )
}
LACKS = {
    "price": rule("paper-needs-price"),
    "accepted": rule("paper-needs-accepted"),
    "paid": rule("paper-needs-paid"),
    "parcel": rule("paper-needs-parcel"),
    "address": rule("paper-needs-address"),
}
"""What is asked for where a need is not met."""
OF_PARCEL = (PACKING, LABEL)
LEAST_ADDRESS = 2
"""Lines of an address that a carrier finds: who, and where."""


def number(kind: str, n: int) -> str:
    """The number of the n-th paper of a kind: Q-0001."""
    return f"{PAPER_KINDS[kind].stem}-{n:04d}"


def may_be_issued(kind: str, has: dict[str, bool]) -> None:
    """Raises `Refused` for a paper whose facts are not all there; `has` says by need whether they are."""
    require(
        kind in PAPER_KINDS and kind != COUNTER, "paper", kind, rule("one-of", listed=", ".join(PAPER_KINDS))
    )
    for need in PAPER_KINDS[kind].needs:
        require(has.get(need, False), "paper", kind, LACKS[need])


def address_lines(text: str) -> list[str]:
    """The lines of an address. Raises `Refused` for one of a single line: a parcel would not arrive."""
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    require(len(lines) >= LEAST_ADDRESS, "address", text[:60], rule("address-lines"))
    return lines
