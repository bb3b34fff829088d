"""Names that stand on the sheet: working points are numbered as a drafter numbers them, lines and
circles that are named again are lettered, by the step that makes them."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import count, product
from string import ascii_lowercase

from ..acts.act import Act, Draw, Fix, Key, Measure, Prick, StepOff, Strip, Swing, Trace
from ..acts.names import keys_in, plain, spelt
from ..drawing.strokes import Role, Stroke
from ..geometry import Circle, Point
from .schedule import leaves
from .words import step_of


@dataclass(frozen=True)
class Letters:
    """By what things are said: those that have a letter on the sheet, by their keys, and parts of
    things by what they are called in the plan."""

    by_key: Mapping[Key, str]
    by_name: Mapping[str, str]

    def say(self, text: str) -> str:
        """Return a text in which everything that has a letter is said by it."""
        said = spelt(text, self.by_key)
        return DOTTED.sub(lambda part: self.by_name.get(part[0], part[0]), said)

    def explained(self, acts: Sequence[Act]) -> str:
        """Return what the places and lines are that acts letter; nothing where there are many."""
        left = (each for act in acts for each in _said(act).left)
        found = [
            f"{letter} is {called}"
            for key, called, label in left
            if not label
            and (letter := self.by_key.get(key, ""))
            and " " not in letter
            and called not in ("", letter)
            and not called.startswith(SAYS_ITSELF)
        ]
        return ", ".join(found) if len(found) <= MOST_EXPLAINED else ""

    def concerning(self, acts: tuple[Act, ...]) -> tuple[tuple[str, str], ...]:
        """Return the letters that telling some acts depends on."""
        keys, words = _concerned(acts)
        return (
            *((key, self.by_key[key]) for key in keys if key in self.by_key),
            *((word, self.by_name[word]) for word in words if word in self.by_name),
        )


def lettered(acts: Sequence[Act], taken: Set[str]) -> Letters:
    """Return by what each thing is said.

    Parameters
    ----------
    acts : sequence of Act
        In the order in which they are done.
    taken : set of str
        Names of the plan.

    Returns
    -------
    Letters
        The letter of what has one on the sheet already, a number for every other mark that is named
        again, a small letter for parts of a thing; what is never named again has none.
    """
    said = [_said(act) for act in acts]
    again = {key for each in said for key in each.others}
    by_name = {called: key for each in said for key, called, _ in each.left if "." in called}
    again |= {by_name[word] for each in said for word in each.parts if word in by_name}
    written = {stroke.label for act in acts for stroke in act.strokes if stroke.label}
    numbers = (str(number) for number in count(1) if str(number) not in written)
    letters = (letter for letter in _alphabet() if letter not in taken | written)
    found: dict[Key, str] = {}
    used: set[str] = set()
    for act, own in zip(acts, said, strict=True):
        for key, _, label in own.left:
            if label and not (label.isdigit() and label in used):
                found[key] = label
                used.add(label)
            elif label:
                # Two things may be numbered from 1, each for itself: at the board one name is one.
                found[key] = next(numbers)
            elif key not in again:
                found[key] = _unnamed(act)
            elif isinstance(act, Draw | Swing | Trace):
                name = spelt(act.called, found)
                if " " not in name and "." not in name:
                    found[key] = name
                elif "." in name or len(name.split()) > MOST_WORDS:
                    found[key] = next(letters)
            else:
                found[key] = next(numbers)
    return Letters(found, {word: found[key] for word, key in by_name.items() if found.get(key)})


def _alphabet() -> Iterator[str]:
    """Yield small letters, single, then in pairs: without those that are read as numbers."""
    plain_ones = [letter for letter in ascii_lowercase if letter not in "ilo"]
    for size in count(1):
        yield from map("".join, product(plain_ones, repeat=size))


@lru_cache(maxsize=4096)
def _concerned(acts: tuple[Act, ...]) -> tuple[list[Key], list[str]]:
    """Return the keys of what acts name or leave, and the parts they name."""
    said = [_said(act) for act in acts]
    keys = {key for each in said for key in each.keys}
    keys |= {key for act in acts for key in leaves(act)}
    return sorted(keys), sorted({word for each in said for word in each.parts})


@dataclass(frozen=True, slots=True)
class _Said:
    """What telling an act names.

    Attributes
    ----------
    keys : frozenset of str
        What is named, by its key on the sheet.
    others : frozenset of str
        What is named in the step itself and is not left by it.
    parts : frozenset of str
        Parts of things, by what they are called in the plan.
    left : tuple of (str, str, str)
        What the act leaves that may be lettered, what it is called, and its label.
    """

    keys: frozenset[Key]
    others: frozenset[Key]
    parts: frozenset[str]
    left: tuple[tuple[Key, str, str], ...]


@lru_cache(maxsize=8192)
def _said(act: Act) -> _Said:
    step = step_of(act)
    whole = f"{step.text} {step.check}"
    return _Said(
        keys=frozenset(keys_in(whole)),
        others=frozenset(keys_in(step.text)).difference(leaves(act)),
        parts=frozenset(DOTTED.findall(plain(whole))),
        left=_left(act),
    )


def _left(act: Act) -> tuple[tuple[Key, str, str], ...]:
    match act:
        case Fix() | Measure() | Prick() | Strip():
            label = next((s.label for s in act.strokes if isinstance(s.shape, Point)), "")
            return ((act.leaves, plain(act.called), label),)
        case StepOff(marks=marks):
            labels = [s.label for s in act.strokes if isinstance(s.shape, Point)]
            return tuple((key, "", label) for key, label in zip(marks, labels, strict=False))
        case Draw() | Swing() | Trace():
            return ((act.leaves, plain(act.called), ""),)
    return ()


SAYS_ITSELF = ("the line through", "the swing about", "the crossing of", "the parallel to")
"""How names begin that say no more than the step does."""

MOST_EXPLAINED = 2
"""Things lettered by one step beyond which it is not told what each is."""

MOST_WORDS = 4
"""Words up to which a line or circle is named by what it is and has no letter (by eye)."""

DOTTED = re.compile(r"\b[^\W\d]\w*(?:\.\w+)+")
"""A part of something by its name in the plan."""


def _unnamed(act: Act) -> str:
    """Return what is said of a thing that is never named again."""
    match act:
        case Draw():
            return "a light line"
        case Swing():
            whole = any(isinstance(stroke.shape, Circle) for stroke in act.strokes)
            return "the circle" if whole else "the arc"
    return ""


def with_letters(
    strokes: Iterable[Stroke], acts: Sequence[Act], letters: Letters
) -> tuple[Stroke, ...]:
    """Return the strokes of acts with the letters of what they leave beside them."""
    wanted = {}
    for act in acts:
        for key, _, label in _said(act).left:
            letter = letters.by_key.get(key, "")
            if letter and letter != label and " " not in letter:
                place = _placed(act, key)
                if place is not None:
                    wanted[place] = letter
    return tuple(
        replace(stroke, label=wanted[stroke.shape])
        if stroke.shape in wanted and stroke.role in (Role.CONSTRUCTION, Role.POINT)
        else stroke
        for stroke in strokes
    )


def _placed(act: Act, key: Key) -> object:
    """Return the shape beside which the letter of what an act left stands."""
    match act:
        case Fix() | Measure() | Prick() | Strip():
            return act.planned
        case StepOff(marks=marks, planned=planned):
            return planned[marks.index(key)]
        case Draw() | Swing() | Trace():
            return act.strokes[0].shape if act.strokes else None
    return None
