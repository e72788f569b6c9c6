"""What is asked where an order is taken."""

ASKED = {"contact": "How to reach them", "note": "Good to know of them"}
"""By the fact of a customer."""
