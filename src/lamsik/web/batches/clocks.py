"""Clocks as the pages show them."""

from collections.abc import Iterable

from lamsik.store.tables import Clock, now


def views_of(clocks: Iterable[Clock]) -> list[dict[str, object]]:
    """Clocks as the pages show them."""
    return [
        {
            "id": c.id,
            "name": c.name,
            "kind": c.kind,
            "ends": c.ends_at.isoformat(),
            "ends_at": c.ends_at,
            "link": c.link,
            "over": c.ends_at <= now(),
        }
        for c in clocks
    ]
