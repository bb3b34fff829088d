"""The net under the desk: what goes wrong with one statement is told there, and the rest is worked
out.

A mistake in a plan is a `ClauseError` and has nothing to do with this. Caught here are faults of
the desk's own, and work that takes too long. A fault goes to the log with a reference that stands
in the message too; the same fault has the same reference, so that the same plan gives the same
answer twice."""

from __future__ import annotations

import hashlib
import logging
import os
import traceback

LOG = logging.getLogger("entrick.fault")

NET = os.environ.get("ENTRICK_NET", "on") != "off"
"""Whether faults are caught. Tests take the net away, so that a fault falls through to where it is
seen."""


class OutOfTime(Exception):
    """The work in hand takes longer than any sensible plan does; raised into it from outside."""


def report(error: Exception, where: str) -> str:
    """Return what is said of an unforeseen exception at its place, and log it.

    Parameters
    ----------
    error : Exception
        As caught. Running out of memory is no matter of one statement and goes on upwards.
    where : str
        What was being done, for the log.

    Raises
    ------
    Exception
        The same again, where the net is off.
    """
    if isinstance(error, OutOfTime):
        LOG.warning("out of time while %s", where)
        return "this takes more work than the desk does at once; the rest is worked out"
    if not NET or isinstance(error, MemoryError):
        raise error
    number = reference(error)
    LOG.error("fault %s while %s", number, where, exc_info=error)
    return f"a fault of the desk, not of the plan (reference {number}); the rest is worked out"


def reference(error: Exception) -> str:
    """Return a short number for a fault: the same for the same exception in the same place."""
    frames = traceback.extract_tb(error.__traceback__)
    place = "|".join(
        f"{frame.filename.rsplit('/', 1)[-1]}:{frame.name}:{frame.lineno}" for frame in frames[-4:]
    )
    return hashlib.sha256(f"{type(error).__name__}|{place}".encode()).hexdigest()[:8]
