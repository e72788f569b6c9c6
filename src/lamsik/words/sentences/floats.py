"""What is said of floats."""

SAYS: dict[str, str] = {}
"""By the name of the finding."""
