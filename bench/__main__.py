"""Print the benchmark table: what, target, figure, and which fall short; exit 1 when any does.

Figures are medians on this machine, targets the limits of a quiet one times how much slower this one is just
then.
"""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from bench import calibration
from bench.core import core_rows
from bench.floats import float_rows
from bench.grown import Size, grow
from bench.moulds import mould_rows
from bench.paints import paint_rows
from bench.rows import Row
from bench.shapes import shape_rows
from bench.stores import store_rows
from bench.tank import tank_rows
from bench.web import browser_rows, growth_rows, page_rows, two_client_rows
from lamsik.cli.serve import settled_in
from lamsik.demo.shop import build
from lamsik.store.database import open_database, session_of

LARGE = Size(pieces=10_000, orders=3_000, batches=3_000, bodies=1_000, revisions=1_000)
"""The grown shop of every run; LAMSIK_BENCH_GROWN=full makes it ten times as large."""


def main() -> int:
    """Run everything, as the program that is served; 1 when a row falls short."""
    settled_in()
    with tempfile.TemporaryDirectory() as folder:
        home, grown = Path(folder) / "demo", Path(folder) / "grown"
        engine = open_database(home)
        with session_of(engine) as session:
            build(session)
        engine.dispose()
        grow(grown, Size() if os.environ.get("LAMSIK_BENCH_GROWN") == "full" else LARGE)
        groups: list[Callable[[], list[Row]]] = [
            core_rows,
            tank_rows,
            shape_rows,
            float_rows,
            mould_rows,
            paint_rows,
            lambda: page_rows(home),
            lambda: growth_rows(home, grown),
            lambda: store_rows(home),
            lambda: browser_rows(home),
            lambda: two_client_rows(home),
        ]
        rows = [row for group in groups for row in paced(group)]
    table(rows)
    short = [row.name for row in rows if not row.met]
    print(
        f"\n{len(rows) - len(short)} of {len(rows)} rows meet their target"
        + (f"; short: {', '.join(short)}" if short else ".")
    )
    return 1 if short else 0


def paced(group: Callable[[], list[Row]]) -> list[Row]:
    """The rows of a group at the pace of the machine before and after it."""
    before = calibration.figure_ms()
    rows = group()
    pace = max((before + calibration.figure_ms()) / 2 / calibration.QUIET_MS, 1.0)
    print(f"pace {pace:.2f} ({rows[0].name} …)", file=sys.stderr)
    return [row.at(pace) for row in rows]


def table(rows: list[Row]) -> None:
    """The rows as aligned text."""
    wide = max(len(row.name) for row in rows)
    print(f"{'what':{wide}}  {'quiet limit':>12}  {'target now':>12}  {'figure':>12}")
    for row in rows:
        limit = f"{row.target:g} {row.unit}"
        print(
            f"{row.name:{wide}}  {limit:>12}  {row.target_text:>12}  {row.figure_text:>12} "
            f" {'' if row.met else 'SHORT'}".rstrip()
        )


if __name__ == "__main__":
    sys.exit(main())
