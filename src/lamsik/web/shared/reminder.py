"""What is said of the backups where the day begins."""

from datetime import datetime, timedelta

from flask import current_app

from lamsik.core.quantities import counted
from lamsik.store import backup

OLD = timedelta(days=8)
"""Older than this, the newest backup is spoken of on Today."""


def reminder() -> str:
    """What Today says about the backups; nothing while the newest is fresh."""
    old = backup.age(current_app.config["HOME"], datetime.now())
    if old is None:
        return "There is no backup of this shop yet."
    return f"The last backup is {counted(old.days, 'day')} old." if old > OLD else ""
