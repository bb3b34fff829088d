"""Workers: processes that work plans out, so that no plan can stall the desk, whatever it asks for.

A request is carried out by one process and by no other; what it costs is bounded there, by the
clock and in memory, and when nobody waits for the answer any more, it is stopped. Few workers run
at a time, the one that worked last first, since it still has what it made before; those whose work
takes long step aside for the quick."""

from __future__ import annotations

import contextlib
import gc
import multiprocessing
import os
import pickle
import resource
import signal
import sys
import threading
import time
import traceback
from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from multiprocessing import forkserver
from multiprocessing.connection import Connection
from types import FrameType
from typing import Any, Protocol, TypeVar

from ...core import fault
from ...core.fault import OutOfTime

T = TypeVar("T")

AGAIN = 0.15
"""Seconds of CPU after which work that was told to stop is told again."""

MOST_LOADED = 3
"""Times the clock begins anew where it would have struck while a library was loaded."""

WALL = 30.0
"""Seconds by the clock on the wall after which a worker is taken to be stuck where no signal
reaches it."""


@dataclass(frozen=True, slots=True)
class Bounds:
    """What one request may take.

    Attributes
    ----------
    soft : float
        Seconds of CPU after which the work in worker is told to stop, statement by statement.
    hard : float
        Seconds of CPU after which it is stopped altogether.
    memory : int
        Bytes beyond what a fresh worker has.
    """

    soft: float
    hard: float
    memory: int


USUAL = Bounds(1.5, 2.0, 300 * 2**20)

LOOKING = Bounds(15.0, 17.0, 1200 * 2**20)
"""Of a request that looks at a picture: address space, of which OpenCV takes more than it uses."""

TIRED = 96 * 2**20
"""Bytes a worker may have grown by before it is replaced by a fresh one."""

QUICK = 3
"""Requests at work at a time that are young."""

YOUNG = 0.4
"""Seconds after which a request is no longer young, and makes room for another."""

LONG = 10
"""Requests at work at a time that have taken long."""

PATIENCE = 5.0
"""Seconds a request waits for its turn before the desk says that it is busy."""

WAITING = 60
"""Requests that may wait for their turn."""


TOLD_TOO_MUCH = "this asks for more work than the desk does at once; ask for less of it"


class Busy(RuntimeError):
    """Too much is being worked out already."""


class TooMuchWork(RuntimeError):
    """The request takes more time or memory than the desk gives to one."""


class Gone(RuntimeError):
    """Nobody waits for the answer any more."""


@dataclass(frozen=True, slots=True)
class Task:
    """A function by the name of its module, which is loaded by whoever carries it out, and not
    before."""

    module: str
    name: str

    def __call__(self, *args: Any) -> Any:
        """Carry the task out here."""
        return getattr(import_module(self.module), self.name)(*args)


class Pool(Protocol):
    """Whoever carries tasks out."""

    def do(
        self,
        task: Callable[..., T],
        *args: Any,
        gone: Callable[[], bool] = ...,
        bounds: Bounds = ...,
    ) -> T:
        """Carry a task out and return what it gives."""

    def close(self) -> None:
        """Let everybody go."""


def _never() -> bool:
    return False


class InProcess:
    """Carries tasks out on the spot: for tests, and for the shell."""

    def do(
        self,
        task: Callable[..., T],
        *args: Any,
        gone: Callable[[], bool] = _never,
        bounds: Bounds = USUAL,
    ) -> T:
        """Carry a task out and return what it gives."""
        return task(*args)

    def close(self) -> None:
        """Nothing to let go."""


class Stopped(BaseException):
    """Raised into work that has had all the time there is; not an `Exception`, so that nothing on
    the way catches it."""


class Clock:
    """Counts the CPU time of the work in worker."""

    def __init__(self) -> None:
        self.began, self.struck, self.loaded, self.bounds = 0.0, False, 0, USUAL
        signal.signal(signal.SIGPROF, self._strike)

    def start(self, bounds: Bounds) -> None:
        self.began, self.struck, self.loaded = time.process_time(), False, 0
        self.bounds = bounds
        signal.setitimer(signal.ITIMER_PROF, bounds.soft, AGAIN)

    def stop(self) -> None:
        signal.setitimer(signal.ITIMER_PROF, 0)

    def explains(self, error: Exception) -> bool:
        """Tell whether an exception comes of having struck: a library may have caught that, and
        gone on with what was half done. What is ours says what it means."""
        return self.struck and not type(error).__module__.startswith("entrick.")

    def _strike(self, _: int, frame: FrameType | None) -> None:
        if self.loaded < MOST_LOADED and _is_loading(frame):
            # A library half loaded would stay so; and loading it is no work of the request's.
            self.loaded += 1
            self.began = time.process_time()
            signal.setitimer(signal.ITIMER_PROF, self.bounds.soft, AGAIN)
            return
        self.struck = True
        if time.process_time() - self.began >= self.bounds.hard:
            raise Stopped
        raise OutOfTime


def _is_loading(frame: FrameType | None) -> bool:
    """Tell whether a module is being loaded."""
    while frame is not None:
        if frame.f_code.co_filename.startswith("<frozen importlib"):
            return True
        frame = frame.f_back
    return False


def tune_gc() -> None:
    """Look for unused cycles seldom: what is kept from one answer to the next holds none."""
    gc.freeze()
    gc.set_threshold(50_000, 20, 100)
    gc.enable()


def _work(pipe: Connection) -> None:
    """Carry out what comes through the pipe until it closes: the life of a worker."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    tune_gc()
    fresh = _size()
    most = fresh + LOOKING.memory
    clock = Clock()
    try:
        pipe.send("ready")
    except OSError:
        return  # the desk was closed while this worker was being made
    while True:
        try:
            task, args, bounds = pipe.recv()
        except (EOFError, OSError):
            return
        failure: Exception | None = None
        result: object = None
        with contextlib.suppress(ValueError, OSError):
            # A system that knows no such limit has the clock alone.
            resource.setrlimit(resource.RLIMIT_AS, (fresh + bounds.memory, most))
        try:
            clock.start(bounds)
            try:
                result = task(*args)
            finally:
                clock.stop()
        except (Stopped, OutOfTime, MemoryError):
            # Struck wherever it was: what it was keeping may be half written, so this worker is not
            # used again.
            failure = TooMuchWork(TOLD_TOO_MUCH)
        except Exception as error:
            struck = clock.explains(error)
            failure = TooMuchWork(TOLD_TOO_MUCH) if struck else _portable(error)
        tired = isinstance(failure, TooMuchWork) or _size() - fresh > TIRED
        try:
            pipe.send((result, failure, tired))
        except (EOFError, OSError):
            return
        if tired:
            return


def _portable(error: Exception) -> Exception:
    """Return an exception as it can be sent, with where it was raised as a note."""
    where = "".join(traceback.format_exception(error))
    try:
        sent: Exception = pickle.loads(pickle.dumps(error))
    except Exception:
        sent = RuntimeError(repr(error))
    sent.add_note(where)
    sent.__dict__["reference"] = fault.reference(error)
    return sent


def _size() -> int:
    """Return the address space of this process, bytes; where the system does not tell, the most it
    ever held."""
    try:
        with open("/proc/self/statm", encoding="ascii") as file:
            return int(file.read().split()[0]) * resource.getpagesize()
    except OSError:
        most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
        return most if sys.platform == "darwin" else most * 1024


class _Worker:
    """One process, from this side."""

    def __init__(self, context: Any) -> None:
        self.pipe, theirs = context.Pipe()
        self.process = context.Process(target=_work, args=(theirs,), daemon=True, name="worker")
        self.process.start()
        theirs.close()
        if not self.pipe.poll(WALL) or self.pipe.recv() != "ready":
            self.dismiss()
            raise Busy("no new worker could be had")

    def dismiss(self) -> None:
        self.pipe.close()
        self.process.kill()
        self.process.join()


class Workers:
    """Carries tasks out in processes of their own.

    Raises from `do`: `Busy`, `TooMuchWork`, `Gone`, and whatever the task itself raises.
    """

    def __init__(self) -> None:
        # One request has one processor: numpy is told before it is loaded.
        os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
        # A server that forks: it has the desk's modules ready, and no threads that a fork would
        # tear.
        self.context = multiprocessing.get_context("forkserver")
        self.context.set_forkserver_preload(["entrick.web.workers.ready"])
        # It loads what workers need while the rest of the desk is loaded here.
        forkserver.ensure_running()
        self.idle: list[_Worker] = []
        self.lock = threading.Lock()
        self.quick = threading.BoundedSemaphore(QUICK)
        self.long = threading.BoundedSemaphore(LONG)
        self.waiting = 0

    def warm(self) -> None:
        """Have the first worker ready before it is asked for."""
        self._put_back(self._take())

    def do(
        self,
        task: Callable[..., T],
        *args: Any,
        gone: Callable[[], bool] = _never,
        bounds: Bounds = USUAL,
    ) -> T:
        """Carry a task out and return what it gives.

        Parameters
        ----------
        task : callable
            Of a module, so that it can be named across processes.
        args
            What it takes.
        gone : callable
            Tells whether nobody waits for the answer any more.
        bounds : Bounds
            What it may take.
        """
        self._wait_for_turn(gone)
        held = self.quick
        worker = None
        try:
            worker = self._take()
            worker.pipe.send((task, args, bounds))
            began = time.monotonic()
            while not worker.pipe.poll(
                0.02 if held is self.long else max(0.0, YOUNG - (time.monotonic() - began))
            ):
                if held is self.quick:
                    if not self.long.acquire(blocking=False):
                        raise Busy("the desk is busy with long work")
                    self.quick.release()
                    held = self.long
                if gone():
                    raise Gone("nobody waits for this any more")
                if time.monotonic() - began > WALL:
                    raise TooMuchWork("this takes longer than the desk gives to one request")
            try:
                result, failure, tired = worker.pipe.recv()
            except EOFError as error:  # it was killed, most likely for want of memory
                raise TooMuchWork(
                    "this takes more memory than the desk gives to one request"
                ) from error
            if not tired:
                self._put_back(worker)
                worker = None
        finally:
            held.release()
            if worker is not None:
                worker.dismiss()
        if failure is not None:
            raise failure
        return result  # type: ignore[no-any-return]

    def _wait_for_turn(self, gone: Callable[[], bool]) -> None:
        with self.lock:
            if self.waiting >= WAITING:
                raise Busy("too many are waiting")
            self.waiting += 1
        try:
            ends = time.monotonic() + PATIENCE
            while not self.quick.acquire(timeout=0.1):
                if gone():
                    raise Gone("nobody waits for this any more")
                if time.monotonic() > ends:
                    raise Busy("everybody at the desk is at work")
        finally:
            with self.lock:
                self.waiting -= 1

    def _take(self) -> _Worker:
        while True:
            with self.lock:
                worker = self.idle.pop() if self.idle else None
            if worker is None:
                return _Worker(self.context)
            if worker.process.is_alive():
                return worker
            worker.dismiss()

    def _put_back(self, worker: _Worker) -> None:
        """Keep as many as work at a time when nothing takes long; the rest go home."""
        with self.lock:
            if len(self.idle) < QUICK:
                self.idle.append(worker)
                return
        worker.dismiss()

    def close(self) -> None:
        """Let everybody go."""
        with self.lock:
            idle, self.idle = self.idle, []
        for worker in idle:
            worker.dismiss()
