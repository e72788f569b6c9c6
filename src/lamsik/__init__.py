"""Lamsik: the bench companion of people who make hard baits and floats by hand."""

from importlib.metadata import version

__version__ = version("lamsik")
