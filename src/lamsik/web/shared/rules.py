"""Rules of addresses that are written ready when an address is first written with them."""

from collections.abc import Callable
from typing import Any

from flask import Flask
from werkzeug.routing import Rule

Builder = Callable[..., tuple[str, str]]


class LateRule(Rule):
    """A rule whose code for writing addresses is made at its first use: that of all rules at once is half
    of a start.
    """

    def _compile_builder(self, append_unknown: bool = True) -> Builder:
        written: list[Builder] = []

        def build(rule: Rule, **values: Any) -> tuple[str, str]:
            if not written:
                written.append(super(LateRule, self)._compile_builder(append_unknown))
            return written[0](rule, **values)

        return build


def install(app: Flask) -> None:
    """For all addresses of the application: before the first is added."""
    app.url_rule_class = LateRule
