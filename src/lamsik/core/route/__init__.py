"""The order of work on one piece."""
