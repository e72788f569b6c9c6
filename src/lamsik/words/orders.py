"""What is asked where an order is taken."""

from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.customers import MAIL, NAME, PHONE

ASKED = {
    **{fact.key: fact.called for fact in CUSTOMER_FACTS},
    "contact": "How to reach them",
    "note": "Good to know of them",
}
"""By the fact of a customer."""
ALIKE = {MAIL: "the same mail", PHONE: "the same telephone", NAME: "names that are read alike"}
"""Why two customers may be one."""
