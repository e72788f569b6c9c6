"""The Moulds bench."""
