"""Lamsik: the bench companion of people who make hard baits and floats by hand."""

import os

__version__: str

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
# What is multiplied here is small: a second thread finds nothing to do and turns round for it, on a core that
# another request or the browser wants. Read once, when numpy is imported.


def __getattr__(name: str) -> str:
    """The version, looked up when it is asked for: it takes longer than some of what is started here."""
    if name == "__version__":
        from importlib.metadata import version  # noqa: PLC0415

        return version("lamsik")
    raise AttributeError(name)
