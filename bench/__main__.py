"""Print the benchmark table: what, target, figure, and which fall short.

Figures are medians on this machine; compare rows of one run only.
"""

import sys
import tempfile
from pathlib import Path

from bench.core import core_rows
from bench.floats import float_rows
from bench.moulds import mould_rows
from bench.rows import Row
from bench.shapes import shape_rows
from bench.tank import tank_rows
from bench.web import browser_rows, page_rows
from lamsik.demo.shop import build
from lamsik.store.database import open_database, session_of


def main() -> int:
    """Run everything; 0 even when a row falls short, since machines differ."""
    with tempfile.TemporaryDirectory() as folder:
        home = Path(folder)
        engine = open_database(home)
        with session_of(engine) as session:
            build(session)
        engine.dispose()
        rows = [*core_rows(), *tank_rows(), *shape_rows(), *float_rows(), *mould_rows(), *page_rows(home), *browser_rows(home)]
    table(rows)
    short = [row.name for row in rows if not row.met]
    print(f"\n{len(rows) - len(short)} of {len(rows)} rows meet their target" + (f"; short: {', '.join(short)}" if short else "."))
    return 0


def table(rows: list[Row]) -> None:
    """The rows as aligned text."""
    wide = max(len(row.name) for row in rows)
    print(f"{'what':{wide}}  {'target':>12}  {'figure':>12}")
    for row in rows:
        print(f"{row.name:{wide}}  {row.target_text:>12}  {row.figure_text:>12}  {'' if row.met else 'SHORT'}".rstrip())


if __name__ == "__main__":
    sys.exit(main())
