"""Pages of the demo shop, of the table `pages.txt`: those looked at in every width, and those of which
only what they say is recorded; rows by their names in `demo_rows`.
"""

from pathlib import Path

from tests import demo_rows

TABLE = Path(__file__).with_suffix(".txt")
EVERY, MORE = (
    part.format(**vars(demo_rows)).split() for part in TABLE.read_text(encoding="utf-8").split("\n\n")
)
