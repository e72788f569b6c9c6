"""Work that takes more than a moment: done beside the requests, its progress asked for, its result taken
once.
"""

import logging
import secrets
import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.quantities import UnitChoice, chosen, saying
from lamsik.words import refusals

MOST_JOBS, OLD_S = 12, 1800.0
log = logging.getLogger("lamsik")


@dataclass
class Job:
    """One piece of work: how far it is, what it says, its result or why it has none."""

    key: str
    name: str
    share: float = 0.0
    says: str = "waiting"
    result: Any = None
    problem: str = ""
    done: bool = False
    stopped: bool = False
    began: float = field(default_factory=time.monotonic)

    def step(self, share: float, says: str) -> None:
        """Tell how far it is; stops here if it was cancelled."""
        if self.stopped:
            raise Refused(self.name, "cancelled", "nothing was kept")
        self.share, self.says = share, says


_JOBS: "OrderedDict[str, Job]" = OrderedDict()
_LOCK = threading.Lock()


def start(name: str, work: Callable[[Job], Any]) -> Job:
    """Begin some work on a thread of its own. Raises `Refused` while too much is going on."""
    with _LOCK:
        for key in [k for k, old in _JOBS.items() if old.done and time.monotonic() - old.began > OLD_S]:
            del _JOBS[key]
        while len(_JOBS) >= MOST_JOBS:
            finished = next((k for k, old in _JOBS.items() if old.done), None)
            if finished is None:
                raise Refused(name, "too much at once", "wait until what is being read is finished")
            del _JOBS[finished]
        job = Job(secrets.token_urlsafe(12), name)
        _JOBS[job.key] = job
    threading.Thread(target=_run, args=(job, work, chosen()), daemon=True).start()
    return job


def _run(job: Job, work: Callable[[Job], Any], choice: UnitChoice) -> None:
    try:
        with saying(choice):
            job.result = work(job)
        job.share, job.says = 1.0, "ready"
    except Refused as refused:
        job.problem = f"{refused.given}: {refusals.allowed(refused)}."
    except Exception:
        mark = secrets.token_hex(4)
        log.exception("job %s failed [%s]", job.name, mark)
        job.problem = f"Something went wrong in the program while reading it; nothing was kept. [{mark}]"
    job.done = True


def get(key: str) -> Job | None:
    """The job of that key, if it is still known."""
    return _JOBS.get(key)


def drop(key: str) -> None:
    """Cancel a job, or forget its result."""
    job = _JOBS.pop(key, None)
    if job is not None:
        job.stopped = True
