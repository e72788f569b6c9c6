"""What is said of bodies, holes and blades."""

SAYS: dict[str, str] = {}
"""By the name of the finding."""
