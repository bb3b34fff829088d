"""Several solutions, lettered, and the words that choose one of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

from ..geometry import Point, Shape
from ..geometry.place import SIDES, on_side
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .args import Args


@dataclass(frozen=True, slots=True)
class Candidate:
    """One of several solutions: its letter, what it is among all of them, and whether it is the one chosen."""

    letter: str
    index: int
    options: tuple[Option, ...]
    chosen: bool = False

    @property
    def shape(self) -> Shape:
        """What it draws."""
        return self.options[self.index].shape

    @property
    def about(self) -> str:
        """What it is."""
        return self.options[self.index].about

    @property
    def words(self) -> tuple[str, ...]:
        """The words that choose it, worked out when they are asked for: most solutions are never looked at."""
        return _selecting(self.options, self.index)


class Undecided(ClauseError):
    """Several solutions fit; carries them, lettered, so that the drafter can choose."""

    def __init__(self, message: str, candidates: Sequence[Candidate]) -> None:
        super().__init__(message)
        self.candidates = tuple(candidates)


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


CLEARLY = 0.1
"""Share of the distance between two spots that must lie up or down before they are called above and below."""


_PLACE_WORDS = ("above", "below", "left", "right")


PLACE = Form("{where:" + "/".join(SIDES) + "}", "where", most=2, choice=True)


NEAR = Form("near {near:point}", choice=True)


ORDINAL = Form("{turn:" + "/".join(ORDINALS) + "}", "turn", choice=True)


CHOICES = (PLACE, NEAR, ORDINAL)


@dataclass(frozen=True, slots=True)
class Option:
    """A solution before it is chosen: its shape, where it lies, what it is called, its own choosing words."""

    shape: Shape
    spot: Point
    about: str
    traits: frozenset[str] = frozenset()


def choose(options: Sequence[Option], args: Args, noun: str) -> tuple[int, tuple[Candidate, ...]]:
    """Choose among several solutions by the words of the statement.

    Parameters
    ----------
    options : sequence of Option
        At least one.
    args : Args
        Whose choosing clauses (place words, ``near``, ordinals, traits) are obeyed.
    noun : str
        What is being chosen, for messages.

    Returns
    -------
    index : int
        Of the chosen option.
    candidates : tuple of Candidate
        Every option with letter and selecting words; empty when there was only one.

    Raises
    ------
    Undecided
        When the words leave more than one.
    """
    order = sorted(range(len(options)), key=lambda i: (round(options[i].spot.x, 9), round(options[i].spot.y, 9)))
    ranked = [options[i] for i in order]
    if len(ranked) == 1:
        return order[0], ()
    left = _narrow(ranked, args)
    if len(left) != 1:
        candidates = _letter(ranked, None)
        listed = "; ".join(f"{c.letter} {c.about} ({', '.join(c.words)})" for c in candidates)
        raise Undecided(f"{len(ranked)} {noun}s fit; say which: {listed}", candidates)
    return order[left[0]], _letter(ranked, left[0])


def _narrow(options: Sequence[Option], args: Args) -> list[int]:
    left = list(range(len(options)))
    for said in args.said:
        for _, value in said.values:
            if isinstance(value, str) and any(value in option.traits for option in options):
                left = [i for i in left if value in options[i].traits]
    for said in args.all("where"):
        left = [left[i] for i in on_side([options[i].spot for i in left], said.word("where"))]
    near = args.get("near")
    if near is not None:
        target = near.ref("near").shape
        assert isinstance(target, Point)
        left = sorted(left, key=lambda i: abs(options[i].spot - target))[:1]
    turn = args.get("turn")
    if turn is not None:
        index = ORDINALS.index(turn.word("turn"))
        left = left[index : index + 1] if index < len(left) else left
    return left


def _letter(options: Sequence[Option], chosen: int | None) -> tuple[Candidate, ...]:
    return tuple(Candidate("ABCDEFGH"[i], i, tuple(options), i == chosen) for i in range(len(options)))


def _selecting(options: Sequence[Option], index: int) -> tuple[str, ...]:
    """Return the fewest words that single out one option."""
    if len(options) == 2:
        apart = options[index].spot - options[1 - index].spot
        if abs(apart.y) > CLEARLY * abs(apart):
            return ("above",) if apart.y > 0 else ("below",)
        if abs(apart.x) > CLEARLY * abs(apart):
            return ("right",) if apart.x > 0 else ("left",)
    traits = sorted(options[index].traits)
    for words in _word_sets(traits):
        left = [i for i in range(len(options)) if all(w in options[i].traits for w in words if w not in SIDES)]
        for word in words:
            if word in SIDES:
                left = [left[i] for i in on_side([options[i].spot for i in left], word)]
        if left == [index]:
            return words
    return (ORDINALS[index],)


def _word_sets(traits: Sequence[str]) -> Iterator[tuple[str, ...]]:
    words = (*traits, *_PLACE_WORDS)
    for count in (1, 2, 3):
        for chosen in combinations(words, count):
            against = ({"above", "below"}, {"left", "right"})
            if sum(word in SIDES for word in chosen) <= 2 and not any(pair <= set(chosen) for pair in against):
                yield chosen
