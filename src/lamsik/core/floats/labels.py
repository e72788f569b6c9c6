"""What is printed on a float: the load with its basis, mark, tip and water; a rating without its basis is
refused.
"""

from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.floats.rating import ON_THE_LINE, TOTAL
from lamsik.core.quantities import said
from lamsik.core.water import Water


@dataclass(frozen=True)
class Label:
    """A rating with everything that makes it one."""

    name: str
    grams: float
    basis: str
    mark: str
    water: Water | None
    tip: str = ""
    measured: bool = False

    def __post_init__(self) -> None:
        finite_between("rating", self.grams, 0.01, 500.0, "g")
        require(
            self.basis in (ON_THE_LINE, TOTAL),
            "basis",
            self.basis,
            rule("say-whether", on_the_line=ON_THE_LINE, total=TOTAL),
        )
        require(bool(self.mark), "mark", self.mark, rule("say-mark"))
        require(self.water is not None, "water", None, rule("say-water"))

    @property
    def lines(self) -> tuple[str, str]:
        """The two lines that are printed: the load and its basis; mark, tip and water."""
        assert self.water is not None
        about = "" if self.measured else "≈ "
        tip = f", {self.tip}" if self.tip else ""
        return (
            f"{about}{said(self.grams, 'mass', 2 if self.measured or self.grams < 10 else 1)} {self.basis}",
            f"to the {self.mark}{tip}, {self.water.describe()}",
        )
