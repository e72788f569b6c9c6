"""After a body was scaled: the hardware whose size has to be chosen anew from stock, nearest first."""

from typing import Any

from lamsik.core.shapes.scaling import Offered, nearest_size
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.documents.rows import Document
from lamsik.store.tables import Hardware


def sizes_anew(before: Document, after: Document, stock: list[Hardware]) -> list[dict[str, Any]]:
    """One row for each part on the body: what stock has of its kind, the size nearest in proportion
    chosen.
    """
    factor = after["body"]["length_mm"] / before["body"]["length_mm"]
    rows = []
    for part in after["hardware"]:
        if PART_KINDS[part["kind"]].is_chosen_anew:
            same = [Offered(row.code, row.name, row.mass_g) for row in stock if row.kind == part["kind"]]
            rows.append(
                _row(
                    f"hardware.{part['key']}",
                    part["name"],
                    part["code"],
                    same,
                    part["mass_g"] * factor**3,
                    {"do": "swap", "key": part["key"]},
                )
            )
    if after["lip"]:
        plates = [
            Offered(row.code, row.name, (row.width_mm or 1) * (row.length_mm or 1))
            for row in stock
            if row.kind == "lip"
        ]
        lip = after["lip"]
        rows.append(
            _row(
                "lip",
                lip["name"],
                lip["code"],
                plates,
                lip["width_mm"] * lip["length_mm"] * factor**2,
                {"do": "swap_lip"},
            )
        )
    return rows


def _row(
    key: str, name: str, code: str, stock: list[Offered], wanted: float, edit: Document
) -> dict[str, Any]:
    near = nearest_size(stock, wanted)
    options = [
        {"code": row.code, "name": row.name, "near": near is not None and row.code == near.code}
        for row in stock
    ]
    return {"key": key, "name": name, "now": code, "options": options, "edit": edit}
