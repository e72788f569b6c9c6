"""What is said of mixes."""

SAYS: dict[str, str] = {}
"""By the name of the finding."""
