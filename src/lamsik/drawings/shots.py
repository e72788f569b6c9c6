"""A table of shot sizes drawn: every size as the ball that it is, side by side to one scale."""

from lamsik.core.floats.shotting import ShotTable
from lamsik.drawings.ink import INK, MUTED, STEEL
from lamsik.drawings.svg import Node, framed, label, node

GAP, WIDE, LEAST = 2.0, 80.0, 7.0


def balls(table: ShotTable) -> Node:
    """The sizes of a table in rows, each with its name under it [mm]."""
    nodes: list[Node] = []
    x = low = 0.0
    tall = 0.0
    for shot in table.shots:
        across = shot.across_mm
        room = max(across, LEAST, 1.6 * len(shot.name)) + GAP
        if x and x + room > WIDE:
            x, low, tall = 0.0, low + tall + 7.0, 0.0
        tall = max(tall, across)
        nodes.append(
            node(
                "circle",
                cx=x + room / 2,
                cy=low + across / 2,
                r=across / 2,
                fill=STEEL,
                stroke=INK,
                stroke_width=0.15,
            )
        )
        nodes.append(
            label(shot.name, x + room / 2, low + across + 2.8, 2.1, fill=MUTED, text_anchor="middle")
        )
        x += room
    return framed(nodes, 0, -1, WIDE, low + tall + 6.0, f"{table.name}: its sizes, to one scale")
