"""What is kept of a customer beside the name: forms, the order's page, the log and the database read this. A
field more is one row here.
"""

from dataclasses import dataclass


@dataclass(frozen=True)
class CustomerFact:
    """Something to know of a customer: its key, what it is called, its most letters."""

    key: str
    called: str
    most: int


CUSTOMER_FACTS = (
    CustomerFact("contact", "Reach", 200),
    CustomerFact("note", "To know", 300),
)
