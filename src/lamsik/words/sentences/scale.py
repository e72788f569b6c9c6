"""What is said at the scale."""

SAYS: dict[str, str] = {}
"""By the name of the finding."""
