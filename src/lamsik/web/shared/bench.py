"""What a bench says of itself."""

from dataclasses import dataclass

from flask import Blueprint


@dataclass(frozen=True)
class BenchPages:
    """A bench: its word in the header, its first page, and the blueprints its pages are on."""

    name: str
    first: str
    blueprints: tuple[Blueprint, ...]

    @property
    def key(self) -> str:
        """What addresses of its pages begin with."""
        return self.blueprints[0].name
