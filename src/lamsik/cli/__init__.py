"""The `lamsik` command."""

from lamsik.cli.main import main

__all__ = ["main"]
