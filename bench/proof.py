"""The slow proofs, of which the suite runs a part; what they find is kept in docs/proof.

python -m bench.proof ballast 200 docs/proof/ballast-200.json
python -m bench.proof space 40 docs/proof/space-40.json
"""

import json
import sys
import time
from collections.abc import Iterator
from multiprocessing import Pool
from pathlib import Path
from typing import Any

from tests import ballast_brute, space_booleans

MAY_HAVE = ("ballast", "cavities", "pours", "hardware", "lip", "shell", "segment_hosts")


def ballast_row(numbered: tuple[int, Any]) -> dict[str, Any]:
    """One want held against trying everything: both scores, and whether an answer was found."""
    number, design = numbered
    mine, there, brute, holes = ballast_brute.held_against(design, thin=5)
    scores = {"search": round(mine, 3), "brute": round(brute, 3)}
    return {"want": number, "form": design.form, **scores, "found": there, "brute_holes": len(holes)}


def space_row(numbered: tuple[int, Any]) -> dict[str, Any]:
    """One combination of features held against booleans of meshes."""
    number, design = numbered
    has = [name for name in MAY_HAVE if getattr(design, name)] + ["joints"] * bool(design.body.joints)
    found = space_booleans.held_against(design).items()
    off = {name: value if isinstance(value, str) else round(value, 7) for name, value in found}
    return {"combination": number, "form": design.form, "has": has, **off}


def ballast(rows: list[dict[str, Any]]) -> dict[str, Any]:
    """How the search did over all wants."""
    worse = sum(row["search"] > row["brute"] + 1 for row in rows)
    worst = max(rows, key=lambda row: row["search"] - row["brute"])
    return {"wants": len(rows), "worse_by_more_than_1": worse, "worst": worst}


def space(rows: list[dict[str, Any]]) -> dict[str, Any]:
    """How far the account of space is off."""
    worst = {f"worst_{name}": max(row[f"{name}_off"] for row in rows) for name in ("volume", "mass")}
    return {"combinations": len(rows), **worst}


PROOFS = {
    "ballast": (lambda count: ballast_brute.wants(count, 200), ballast_row, ballast),
    "space": (space_booleans.combinations_, space_row, space),
}


def rows_of(which: str, count: int) -> Iterator[dict[str, Any]]:
    """The rows of a proof, one after the other, told as they come."""
    cases, row_of, _ = PROOFS[which]
    began = time.time()
    with Pool() as pool:
        for row in pool.imap(row_of, enumerate(cases(count))):
            print(row, f"{time.time() - began:.0f} s", flush=True)
            yield row


if __name__ == "__main__":
    _, which, count, path = sys.argv
    found = list(rows_of(which, int(count)))
    kept = {**PROOFS[which][2](found), "rows": found}
    Path(path).write_text(json.dumps(kept, indent=1) + "\n", encoding="utf-8")
