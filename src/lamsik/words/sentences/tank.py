"""What is said of how a body floats, hangs and swims, and of its ballast."""

SAYS: dict[str, str] = {}
"""By the name of the finding."""
