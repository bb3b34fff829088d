"""Several solutions, lettered, and the words that choose one of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

from ..geometry import Arc, Circle, Line, Point, Shape
from ..geometry.place import SIDES, on_sides
from ..measure import Unit, spell
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import DIRECTION
from .args import Args
from .figure import Ref


@dataclass(frozen=True, slots=True)
class Candidate:
    """One of several solutions: its letter, what it is among all of them, whether it is the one
    chosen, and the points that the statement names."""

    letter: str
    index: int
    options: tuple[Option, ...]
    chosen: bool = False
    landmarks: tuple[Ref, ...] = ()

    @property
    def shape(self) -> Shape:
        """What it draws."""
        return self.options[self.index].shape

    @property
    def about(self) -> str:
        """What it is."""
        return self.options[self.index].about

    def size(self, unit: Unit) -> str:
        """Tell of something round its radius, and where its centre lies from the datum."""
        if not isinstance(self.shape, Circle | Arc):
            return ""
        at = self.shape.centre
        return f"R{spell(self.shape.radius, unit)} about {spell(at.x, unit)}, {spell(at.y, unit)}"

    def told(self, unit: Unit) -> str:
        """Tell what it is, and how large and where."""
        return ", ".join(filter(None, (self.about, self.size(unit))))

    @property
    def words(self) -> tuple[str, ...]:
        """The words that choose it, worked out when they are asked for: most solutions are never
        looked at."""
        of_walk = self.options[self.index].of_walk
        return (self.about,) if of_walk else _selecting(self.options, self.index, self.landmarks)

    @property
    def of_walk(self) -> OfWalk | None:
        """Which stop of a walk it settles, where it is one way of a walk."""
        return self.options[self.index].of_walk


class Undecided(ClauseError):
    """Several solutions fit; carries them, lettered, so that the drafter can choose."""

    def __init__(
        self, message: str, candidates: Sequence[Candidate], clause: int | None = None
    ) -> None:
        super().__init__(message, clause)
        self.candidates = tuple(candidates)


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


CLEARLY = 0.1
"""Share of the distance between two spots that must lie up or down before they are called above and
below."""


_PLACE_WORDS = ("above", "below", "left", "right")


PLACE = Form("{where:" + "/".join(SIDES) + "}", "where", most=2, choice=True)


NEAR = Form("near {near:point}", choice=True)


TOWARDS = Form("towards {near:point}", "near", choice=True)


AWAY = Form("away from {away:point}", choice=True)


ORDINAL = Form("{turn:" + "/".join(ORDINALS) + "}", "turn", choice=True)


CONTACTS = ("beside", "around", "inside")


CONTACT = Form(
    "{contact:" + "/".join(CONTACTS) + "} {which:circle}", "contact with", most=3, choice=True
)
"""How the thing wanted touches something round that it is said to be touching."""


BEYOND = Form("{way:above/below/left/right} [of] {which:line}", "beyond", most=3, choice=True)
"""On which side it lies of a line it is said to be touching."""


def sides_of(line: Line, name: str, spot: Point) -> frozenset[str]:
    """Return the words that say on which side of a line a place lies: ``above l``, ``left l``."""
    foot, across = line.foot(spot), line.direction.normal
    found = set()
    if abs(across.y) > DIRECTION:
        found.add("above" if (spot - foot).dot(across) * across.y > 0 else "below")
    if abs(across.x) > DIRECTION:
        found.add("right" if (spot - foot).dot(across) * across.x > 0 else "left")
    return frozenset(f"{word} {name}" for word in found)


CHOICES = (PLACE, NEAR, TOWARDS, AWAY, ORDINAL)


class OfWalk(NamedTuple):
    """One way of a walk: the clause it stands in, which stop it settles, and the words behind that
    stop."""

    clause: int
    stop: int
    words: str


@dataclass(frozen=True, slots=True)
class Option:
    """A solution before it is chosen.

    Attributes
    ----------
    shape : Shape
    spot : Point
        Where it lies.
    about : str
        What it is called.
    traits : frozenset of str
        Its own choosing words.
    said_to_lie : Point or None
        Where it lies for words of place, where that is told by how it was constructed: what is
        drawn may come to lie across the axis of two solutions when a size changes, and the word
        must go on meaning the same one.
    of_walk : OfWalk or None
        For one way of a walk.
    """

    shape: Shape
    spot: Point
    about: str
    traits: frozenset[str] = frozenset()
    said_to_lie: Point | None = None
    of_walk: OfWalk | None = None

    @property
    def place(self) -> Point:
        """Where it lies for words of place."""
        return self.spot if self.said_to_lie is None else self.said_to_lie


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
    order = sorted(
        range(len(options)),
        key=lambda i: (round(options[i].place.x, 9), round(options[i].place.y, 9)),
    )
    ranked = [options[i] for i in order]
    if len(ranked) == 1:
        return order[0], ()
    left = _narrow(ranked, args)
    if len(left) != 1:
        raise _undecided(ranked, left, args, noun)
    return order[left[0]], _letter(ranked, left[0], args)


def _undecided(options: Sequence[Option], left: Sequence[int], args: Args, noun: str) -> Undecided:
    """Return what is told where the words said so far leave several solutions, or none."""
    named = _landmarks(args)
    open_ = left or range(len(options))
    candidates = [
        Candidate(letter, i, tuple(options), False, named)
        for letter, i in zip(LETTERS, open_, strict=False)
    ]
    if not left:
        words = f"none of the {len(options)} {noun}s lies as it is said"
    elif len(left) < len(options):
        words = f"{len(left)} of the {len(options)} {noun}s still fit"
    else:
        words = f"{len(options)} {noun}s fit"
    listed = "; ".join(
        f"{each.letter} {each.told(args.unit)} ({', '.join(each.words)})" for each in candidates
    )
    return Undecided(f"{words}; say which: {listed}", candidates)


def _narrow(options: Sequence[Option], args: Args) -> list[int]:
    left = list(range(len(options)))
    for clause in args.clauses:
        values = " ".join(
            value.text if isinstance(value, Ref) else str(value) for _, value in clause.values
        )
        for phrase in (values, f"{clause.key} {values}"):
            if any(phrase in option.traits for option in options):
                left = [i for i in left if phrase in options[i].traits]
    words = [clause.word("where") for clause in args.all("where")]
    left = [left[i] for i in on_sides([options[i].place for i in left], words)]
    near = args.get("near")
    if left and near is not None:
        target = near.point("near")
        left = [min(left, key=lambda i: abs(options[i].spot - target))]
    away = args.get("away")
    if left and away is not None:
        left = [max(left, key=lambda i: abs(options[i].spot - away.point("away")))]
    turn = args.get("turn")
    if turn is not None:
        index = ORDINALS.index(turn.word("turn"))
        left = left[index : index + 1] if index < len(left) else left
    return left


LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
"""What solutions are lettered with; I and O are taken for figures."""


def lettered(
    options: Sequence[Option], chosen: int | None, named: tuple[Ref, ...] = ()
) -> tuple[Candidate, ...]:
    """Return solutions lettered in order, as many as there are letters."""
    return tuple(
        Candidate(letter, i, tuple(options), i == chosen, named)
        for i, (letter, _) in enumerate(zip(LETTERS, options, strict=False))
    )


def _letter(options: Sequence[Option], chosen: int | None, args: Args) -> tuple[Candidate, ...]:
    return lettered(options, chosen, _landmarks(args))


def _landmarks(args: Args) -> tuple[Ref, ...]:
    """Return the points a statement names, and the centres of what is round, as the drafter calls
    them."""
    found: dict[str, Ref] = {}
    for ref in (
        value for clause in args.clauses for _, value in clause.values if isinstance(value, Ref)
    ):
        if isinstance(ref.shape, Point):
            found[ref.text] = ref
        elif isinstance(ref.shape, Circle | Arc) and ref.centre_name:
            found[ref.centre_name] = Ref(ref.centre_name, ref.shape.centre)
    return tuple(found.values())


def _selecting(options: Sequence[Option], index: int, landmarks: Sequence[Ref]) -> tuple[str, ...]:
    """Return the fewest words that single out one option."""
    if len(options) == 2:
        apart = options[index].place - options[1 - index].place
        if abs(apart.y) > CLEARLY * abs(apart):
            return ("above",) if apart.y > 0 else ("below",)
        if abs(apart.x) > CLEARLY * abs(apart):
            return ("right",) if apart.x > 0 else ("left",)
    traits = sorted(options[index].traits)
    for words in _word_sets(traits):
        left = [
            i
            for i in range(len(options))
            if all(w in options[i].traits for w in words if w not in SIDES)
        ]
        sides = [word for word in words if word in SIDES]
        left = [left[i] for i in on_sides([options[i].place for i in left], sides)]
        if left == [index]:
            return words
    return _by_landmark(options, index, landmarks) or (ORDINALS[index],)


def _by_landmark(
    options: Sequence[Option], index: int, landmarks: Sequence[Ref]
) -> tuple[str, ...]:
    """Return the words that single out one option by how near it is to a named point, among those
    of its traits."""
    traits = sorted(options[index].traits)
    for words in ((), *((trait,) for trait in traits)):
        left = [option for option in options if option.traits.issuperset(words)]
        for ref in landmarks:
            assert isinstance(ref.shape, Point)
            reach = sorted(abs(option.spot - ref.shape) for option in left)
            own = abs(options[index].spot - ref.shape)
            if len(left) < 2:
                continue
            margin = CLEARLY * reach[-1]
            if own == reach[0] and reach[1] - own > margin:
                return (*words, f"near {ref.text}")
            if own == reach[-1] and own - reach[-2] > margin:
                return (*words, f"away from {ref.text}")
    return ()


def _word_sets(traits: Sequence[str]) -> Iterator[tuple[str, ...]]:
    words = (*traits, *_PLACE_WORDS)
    for count in (1, 2, 3):
        for chosen in combinations(words, count):
            against = ({"above", "below"}, {"left", "right"})
            if (
                sum(word in SIDES for word in chosen) <= 2
                and sum(word in CONTACTS for word in chosen) <= 1
                and not any(pair <= set(chosen) for pair in against)
            ):
                yield chosen
