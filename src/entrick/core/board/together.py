"""Acts that are alike are done in one go: one setting, one after another, and told as one step."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from itertools import zip_longest

from ..acts.act import (
    Act,
    Copy,
    Draw,
    GoOver,
    Key,
    Measure,
    Prick,
    StepOff,
    Strip,
    Swing,
    Trace,
    Way,
)
from ..acts.names import named, plain
from ..geometry import Point
from .schedule import leaves, needs, stands_on
from .step import Step
from .words import step_of


def regrouped(acts: Sequence[Act]) -> list[Act]:
    """Return the acts of a statement with those that are alike one after another, as far as what
    they stand on is there."""
    # What a kind lines in of itself comes after its light work.
    light = [act for act in acts if not isinstance(act, GoOver)]
    lined = [act for act in acts if isinstance(act, GoOver)]
    left = [(act, _likeness(act)) for act in (*light, *lined)]
    pending = {key for act in acts for key in leaves(act)}
    result: list[Act] = []

    def do(act: Act) -> None:
        result.append(act)
        pending.difference_update(leaves(act))

    while left:
        (act, like), *left = left
        do(act)
        if like is None or not any(each == like for _, each in left):
            continue
        waiting = []
        for other, each in left:
            if each == like and pending.isdisjoint(stands_on(other)):
                do(other)
            else:
                waiting.append((other, each))
        left = waiting
    return result


def together(acts: Iterable[Act]) -> Iterator[tuple[Act, ...]]:
    """Yield acts that are done in one go, in their order."""
    group: list[Act] = []
    for act in acts:
        like = _likeness(act)
        if group and (like is None or like != _likeness(group[-1])):
            yield tuple(group)
            group = []
        group.append(act)
    if group:
        yield tuple(group)


def _likeness(act: Act) -> object:
    """Return what acts that are done in one go have in common; None where an act stands alone."""
    match act:
        case Swing(setting=setting) if setting.between is None:
            return ("swing", setting, act.planned.radius == float(setting.size), _is_whole(act))
        case Prick(both=True, first=first, second=second):
            return ("both", frozenset((first, second)))
        case Prick(held=Draw(way=Way() as way)) if not WHICH.search(plain(act.laid)):
            return ("tick", needs(act), way.off)
        case Prick(held=None, first=first, second=second):
            return ("mark", *sorted((_family(first), _family(second))), _stem(act.told))
        case Draw(way=Way() as way):
            return ("draw", needs(act), way.off, _stem(plain(act.called)))
        case Measure(row=True, start=start, way=way) if not act.computed:
            return ("row", start, way.off, act.ahead.dot(Point(1.0, 0.618)) > 0)
        case Measure(start=start, size=size, way=way) if not act.computed:
            return ("measure", start, abs(float(size)), way.off)
        case Copy(how="turn", about=about, pairs=pairs):
            return ("copy", about, tuple(original for original, _ in pairs))
        case Trace(touching=touching, tool=tool):
            return ("trace", touching, tool, act.check)
        case GoOver(told="arcs", role=role):
            return ("arcs", role, step_of(act).text)
        case GoOver(told=told, role=role) if told in ("circle", "arc", "line", "curve"):
            return ("line in", needs(act), role, told, act.drawn is None)
        case Strip(whole=whole, rest=rest):
            return ("strip", whole, rest)
    return None


def _is_whole(act: Swing) -> bool:
    return not act.called.startswith("the swing")


def _family(key: Key) -> Key:
    """Return the statement that left something."""
    return key.partition(":")[0]


NUMBERS = re.compile(r"[\d.]+°?")


def _stem(text: str) -> str:
    """Return a text without its numbers: what is said of each of several alike."""
    return NUMBERS.sub("#", plain(text))


UNNAMED = frozenset({"a light line", "the circle", "the arc"})
"""What is said of a thing that is never named again."""

Say = Callable[[str], str]
"""How a name is said: by the letter that stands on the sheet, where there is one."""


def step_of_all(acts: Sequence[Act], say: Say) -> Step:
    """Return the step that several acts are, done in one go.

    Parameters
    ----------
    acts : sequence of Act
    say : callable
        How what they name is said.
    """
    steps = [step_of(act) for act in acts]
    if all(isinstance(act, Prick) and act.both for act in acts):
        steps = [replace(step, text=WHICH.sub("", step.text)) for step in steps]
    if len(acts) == 1:
        numbered = ""
        if isinstance(acts[0], StepOff) and len(acts[0].marks) > 1:
            numbered = joined(list(filter(None, (say(named(key, "")) for key in acts[0].marks))))
        return replace(
            steps[0], text=tidy(say(steps[0].text)) + (numbered and f", mark {numbered}")
        )
    texts = [_parts(step.text) for step in steps]
    if all(isinstance(act, Prick) and act.held is None for act in acts):
        texts = _paired(texts)
    text = tidy(_words(texts, say))
    if text.startswith(("Draw the curve", "Line in the curve")):
        text = text.replace("the curve", "the curves", 1)
    return replace(
        steps[0],
        text=text,
        check=steps[0].check if len({step.check for step in steps}) == 1 else acts[0].check,
        strokes=tuple(stroke for step in steps for stroke in step.strokes),
        also=tuple(acts[1:]),
    )


def in_few_words(group: Sequence[Act], say: Say) -> Iterator[tuple[tuple[Act, ...], Step]]:
    """Yield what is done in one go with its step, in halves where that takes too many words."""
    told = step_of_all(group, say)
    if len(group) == 1 or len(told.text.split()) <= MOST_SAID:
        yield tuple(group), told
        return
    half = len(group) // 2
    yield from in_few_words(group[:half], say)
    yield from in_few_words(group[half:], say)


def tidy(text: str) -> str:
    """Return a text without the room of a name that is not said, and nothing in it twice."""
    text = re.sub(r" +", " ", text)
    for twice, once in SAID_TWICE.items():
        text = twice.sub(once, text)
    text = text.replace(" ,", ",").replace(" :", ":").strip(" ,")
    return f"{text} the place" if text.endswith("mark") else text


SAID_TWICE = {
    re.compile(r"the swing about (\S+) and the swing about (\S+)"): r"the swings about \1 and \2",
    re.compile(r"the line (through \S+) \1"): r"the line \1",
    re.compile(r"(\S+)'s (level|plumb) line through \1, \2"): r"\1's \2 line",
    re.compile(r"the (square|parallel) to (.+?) (through .+), \1 to \2$"): r"the \1 to \2 \3",
}
"""Where the name of a thing says what is then said of it, and how it is said once."""


def _paired(texts: Sequence[Sequence[str]]) -> list[list[str]]:
    """Return texts of crossings, the two things that cross as one name where both differ."""
    first, second = ({text[at] for text in texts} for at in (3, 5))
    if min(len(first), len(second)) == 1:
        return [list(text) for text in texts]
    return [[*text[:3], f"{text[3]}–{text[5]}", *text[6:]] for text in texts]


def _words(texts: Sequence[Sequence[str]], say: Say) -> str:
    """Say once what texts have in common, and join what they differ in."""
    said = []
    for words in zip_longest(*texts, fillvalue=""):
        distinct = list(dict.fromkeys(filter(None, map(say, words))))
        if len(distinct) > 1 and not UNNAMED.isdisjoint(distinct):
            distinct = [each for each in distinct if each not in UNNAMED]
        said.append(distinct[0] if len(distinct) == 1 else joined(distinct))
    return "".join(said)


def joined(names: Sequence[str]) -> str:
    """Say several names: numbers that follow one another by the first and the last.

    >>> joined(["3", "4", "5", "A"]), joined(["the roller at 15°", "the roller at 30°"])
    ('3 to 5 and A', 'the roller at 15° and 30°')
    """
    stems = {NUMBERS.sub("", name).strip() for name in names}
    if len(names) > 2 and len(stems) == 1 and " " in names[0]:
        return AT.sub("", f"{stems.pop()}") + "s"
    runs: list[list[str]] = []
    for name in names:
        follows = runs and name.isdigit() and runs[-1][-1].isdigit()
        if follows and int(name) == int(runs[-1][-1]) + 1:
            runs[-1].append(name)
        else:
            runs.append([name])
    short = (run if len(run) < 3 else [f"{run[0]} to {run[-1]}"] for run in runs)
    said = [name for run in short for name in run]
    if len(said) > MOST_NAMED:
        return f"{said[0]}, {said[1]} … {said[-1]}"
    words = [each.split(" ") for each in said]
    if len(said) > 1 and len(words[0]) > 1 and all(w[:-1] == words[0][:-1] for w in words):
        said = [said[0], *(w[-1] for w in words[1:])]
    return " and ".join(filter(None, (", ".join(said[:-1]), said[-1] if said else "")))


WHICH = re.compile(r", the (?:upper|lower|left|right) one$")
"""Which of two crossings is meant: nothing to be said where both are."""

AT = re.compile(r" (?:at|of|by)$")
"""What is left where the number of a thing is gone."""

MOST_NAMED = 4
"""Names beyond which the first two and the last stand for all of them."""

MOST_SAID = 20
"""Words beyond which what is alike is told in several steps."""


def _parts(text: str) -> list[str]:
    """Return a text cut at what it names, and at the words between."""
    result: list[str] = []
    depth = at = 0
    for sign in ABOUT_NAMES.finditer(text):
        opens = sign[0] == "\x01"
        if opens and not depth:
            result.append(text[at : sign.start()])
            at = sign.start()
        depth += 1 if opens else -1
        if not depth:
            result.append(text[at : sign.end()])
            at = sign.end()
    result.append(text[at:])
    return result


ABOUT_NAMES = re.compile("[\x01\x03]")
"""The signs before and after what is named; names may lie within names."""
