"""The acts of a plan in the order in which they are done, each with the step that tells it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import chain

from ..acts.act import Act
from ..board.economy import acts_at_board
from ..board.schedule import guest_of, scheduled
from ..board.steps import BoardStep, steps_by_statement
from ..desk import Work


@dataclass(frozen=True)
class InOrder:
    """The acts of a plan, one after another.

    Attributes
    ----------
    acts : tuple of Act
    steps : mapping of Act to BoardStep
        What tells each act; the datum and what is done within another act are told by no step of
        their own.
    """

    acts: tuple[Act, ...]
    steps: Mapping[Act, BoardStep]


def _told_by(steps: Iterable[BoardStep]) -> dict[Act, BoardStep]:
    """Return every act that steps tell, with its step."""
    return {act: step for step in steps if step.source for act in step.source.acts}


def in_order(work: Work) -> InOrder:
    """Return the acts of a plan worked out, in the order of its steps."""
    every = acts_at_board(work.solution, work.sheet, work.kit)
    acts = [act for own in every for act in own.acts]
    done = tuple(acts[at] for at in scheduled(acts, work.schedule))
    told = _told_by(work.steps)
    if not told.keys() <= set(done):
        # What was remembered of the plan has been put away meanwhile: these are other acts than
        # those the steps were told of, and are told anew.
        steps = steps_by_statement(work.solution, work.kit, work.sheet, work.schedule)
        told = _told_by(chain.from_iterable(steps))
    told |= {
        guest: told[act]
        for act in done
        if act in told and (guest := guest_of(act)) is not None and guest not in told
    }
    return InOrder(done, told)
