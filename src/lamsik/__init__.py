"""Lamsik: the bench companion of people who make hard baits and floats by hand."""

__version__ = "0.2.0"
