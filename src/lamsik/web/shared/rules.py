"""Rules of addresses that are made ready when an address is first written with them."""

from collections.abc import Callable
from typing import Any

from flask import Flask
from werkzeug.routing import Rule

Builder = Callable[..., tuple[str, str]]


class LateRule(Rule):
    """A rule whose code for writing addresses is made at its first use: made for all of them at once it is
    nine tenths of a start.
    """

    def _compile_builder(self, append_unknown: bool = True) -> Builder:
        made: list[Builder] = []

        def build(rule: Rule, **values: Any) -> tuple[str, str]:
            if not made:
                made.append(super(LateRule, self)._compile_builder(append_unknown))
            return made[0](rule, **values)

        return build


def install(app: Flask) -> None:
    """For all addresses of the application: before the first is added."""
    app.url_rule_class = LateRule
