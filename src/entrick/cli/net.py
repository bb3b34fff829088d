"""The net under the shell: whatever is wrong with what it was given is told in one line, and no
file keeps it busy without end."""

from __future__ import annotations

import math
import os
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from types import FrameType
from typing import Any

import click

from ..core import fault
from ..core.fault import OutOfTime
from ..core.plan.document import PlanTooLarge
from ..core.plan.errors import ClauseError, TooMuch

SECONDS = float(os.environ.get("ENTRICK_SECONDS", "60"))
"""Of CPU that a command on a file from anywhere takes at most."""


@contextmanager
def told() -> Iterator[None]:
    """Tell what a command comes upon in one line, as `click` does."""
    try:
        yield
    except (ClauseError, PlanTooLarge, TooMuch, UnicodeDecodeError) as error:
        raise click.ClickException(str(error)) from error
    except OSError as error:
        where = f"{error.filename}: " if error.filename else ""
        raise click.ClickException(f"{where}{error.strerror or error}") from error
    except OutOfTime:
        raise click.ClickException(
            f"this takes more than {SECONDS:g} seconds of work, which is more than the desk does "
            "at once (ENTRICK_SECONDS gives it more)"
        ) from None
    except MemoryError:
        raise click.ClickException("this takes more memory than there is") from None
    except RecursionError as error:
        raise click.ClickException("this is nested too deeply") from error
    except Exception as error:
        if isinstance(error, click.ClickException | click.exceptions.Exit | click.Abort):
            raise
        fault.LOG.error("fault %s", fault.reference(error), exc_info=error)
        raise click.ClickException(
            f"a fault of the desk, not of what it was given (reference {fault.reference(error)})"
        ) from error


@contextmanager
def bounded(seconds: float = SECONDS) -> Iterator[None]:
    """Let the work within take so many seconds of CPU."""

    def strike(_: int, __: FrameType | None) -> None:
        raise OutOfTime

    before = signal.signal(signal.SIGPROF, strike)
    signal.setitimer(signal.ITIMER_PROF, seconds, 1.0)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
        signal.signal(signal.SIGPROF, before)


class Told(click.Command):
    """A command that tells in one line what is wrong, and takes as long as there is to do."""

    def invoke(self, ctx: click.Context) -> Any:
        """Carry the command out."""
        with told():
            return super().invoke(ctx)


class Bounded(Told):
    """A command on a file that may be from anywhere: it takes no longer than the desk would."""

    def invoke(self, ctx: click.Context) -> Any:
        """Carry the command out."""
        with told(), bounded():
            return super().invoke(ctx)


class Size(click.ParamType[float]):
    """A size on the command line: more than nought, and no larger than anything on a sheet."""

    name = "size"

    def __init__(self, most: float = 1e6) -> None:
        self.most = most

    def convert(
        self, value: Any, param: click.Parameter | None, ctx: click.Context | None
    ) -> float:
        """Return what is said as a number."""
        try:
            result = float(value)
        except ValueError:
            result = math.nan
        if not 0 < result <= self.most:
            self.fail(f"{value} is no number more than nought, up to {self.most:g}", param, ctx)
        return result


SEED = click.IntRange(0, 2**31)
