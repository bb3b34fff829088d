"""Keeping the register in order while the desk is used: old summaries are renewed, a snapshot is
taken every day."""

from __future__ import annotations

import logging
import threading
import uuid
from datetime import UTC, date, datetime, timedelta

from ...core.summary import unsummarized
from ...store import RegisterTrouble, Store, clear_leftovers, outdated, renew, snapshot, take_lease
from ..workers.forward import SUMMARIZE
from ..workers.pool import Busy, Pool, TooMuchWork

LOG = logging.getLogger("entrick.keeper")

AT_ONCE = 20
"""Jobs looked at together."""

PAUSE = 0.05
"""Seconds between two jobs, in which others come first."""

LEASE = timedelta(minutes=5)
"""How long one process of several renews alone before another may."""

EVERY = 600.0
"""Seconds between two looks at whether it is another day."""


class Keeper:
    """A thread that works through what is outdated, and looks at the date now and then."""

    def __init__(self, store: Store, workers: Pool) -> None:
        self.store, self.workers = store, workers
        self.name = uuid.uuid4().hex
        self.ended = threading.Event()
        self.thread = threading.Thread(target=self._run, daemon=True, name="keeper")

    def start(self) -> None:
        """Begin."""
        self.thread.start()

    def stop(self) -> None:
        """End, as soon as what is in hand is done."""
        self.ended.set()
        self.thread.join(timeout=5)

    def _run(self) -> None:
        while not self.ended.is_set():
            try:
                if self.store.file is not None:
                    clear_leftovers(self.store.file)
                    snapshot(self.store.file, date.today())
                self.renew_all()
            except RegisterTrouble as error:
                LOG.warning("%s", error)
            except Exception:
                LOG.exception("fault while keeping the register")
            self.ended.wait(EVERY)

    def _is_alone(self) -> bool:
        """Tell whether this process is the one that renews."""
        with self.store.writing() as session:
            return take_lease(session, "renewing", self.name, datetime.now(UTC), LEASE)

    def renew_all(self) -> None:
        """Work out anew what the register lists of every job whose summary an older core made."""
        while not self.ended.is_set():
            with self.store.reading() as session:
                jobs = outdated(session, AT_ONCE)
            if not jobs or not self._is_alone():
                return
            for job_id, text in jobs:
                try:
                    made = self.workers.do(SUMMARIZE, text)
                except Busy:
                    if self.ended.wait(2):
                        return
                    continue
                except Exception as error:
                    if not isinstance(error, TooMuchWork):
                        LOG.exception("fault while summarizing job %s", job_id)
                    made = unsummarized(
                        text,
                        str(error) if isinstance(error, TooMuchWork) else "a fault of the desk",
                    )
                with self.store.writing() as session:
                    renew(session, job_id, text, made)
                if self.ended.wait(PAUSE):
                    return
