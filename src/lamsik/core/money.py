"""Money: whole minor units of a currency, read, said and rounded here and nowhere else."""

from dataclasses import dataclass
from decimal import ROUND_HALF_EVEN, Decimal, InvalidOperation

from lamsik.core.errors import Refused, rule

DIGITS = {
    **dict.fromkeys(("BIF", "CLP", "DJF", "GNF", "ISK", "JPY", "KMF", "KRW", "PYG", "RWF", "UGX"), 0),
    **dict.fromkeys(("VND", "VUV", "XAF", "XOF", "XPF"), 0),
    **dict.fromkeys(("BHD", "IQD", "JOD", "KWD", "LYD", "OMR", "TND"), 3),
}
"""Digits of the currencies that have other than two (ISO 4217, minor unit)."""
MOST = Decimal(10) ** 7
"""Less than so much is agreed for a bait."""


@dataclass(frozen=True)
class Money:
    """So many minor units of a currency: cents, or yen."""

    minor: int
    currency: str

    @property
    def amount(self) -> Decimal:
        """In whole units of the currency."""
        return Decimal(self.minor).scaleb(-digits(self.currency))

    @property
    def said(self) -> str:
        """As it is written: 48.50 EUR, 4850 JPY."""
        return f"{self.amount:.{digits(self.currency)}f} {self.currency}"


def digits(currency: str) -> int:
    """How many digits a currency has after the point."""
    return DIGITS.get(currency, 2)


def rounded(amount: Decimal | float, currency: str) -> Money:
    """An amount in whole units to the nearest minor one, halves to the even one."""
    minor = Decimal(amount).scaleb(digits(currency)).to_integral_value(ROUND_HALF_EVEN)
    return Money(int(minor), currency)


def read(text: str, currency: str) -> Money:
    """An amount as typed, with a point or a comma. Raises `Refused` where it is none."""
    try:
        amount = Decimal(text.strip().replace(",", "."))
        if not amount.is_finite() or not 0 <= amount < MOST:
            raise InvalidOperation
    except InvalidOperation as error:
        raise Refused("price", text, rule("type-amount")) from error
    return rounded(amount, currency)
