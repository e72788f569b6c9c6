"""Lamsik: the bench companion of people who make hard baits and floats by hand."""

__version__: str


def __getattr__(name: str) -> str:
    """The version, looked up when it is asked for: it takes longer than some of what is started here."""
    if name == "__version__":
        from importlib.metadata import version  # noqa: PLC0415

        return version("lamsik")
    raise AttributeError(name)
