"""What the rule says at a pointer, and where a size stands on it."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from random import Random

from ...acts.act import GoOver, StepOff, Swing
from ...board.kit import Kit
from ...board.steps import BoardStep
from ...measure import RulePiece, Unit, piece_about, spell
from ..question import Question, Slip
from .context import Context

PLACE = 11
"""Where it stands among the others; those drawn by lot come last."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask, for the sizes that are set in the order of work, what the rule says and where to set
    it."""
    seen: set[tuple[int, Fraction]] = set()
    for step in at.work.steps:
        for number, ratio in _graduations(at, step):
            if (number, ratio) in seen:
                continue
            seen.add((number, ratio))
            face = "" if ratio == 1 else f":{ratio}"
            yield reading(f"reading:{at.key(step)}{face}", at.work.kit, number, ratio, step.line)
            yield setting(f"set:{at.key(step)}{face}", at.work.kit, number, ratio, step.line)


def _graduations(at: Context, step: BoardStep) -> Iterator[tuple[int, Fraction]]:
    """Yield the graduation of a step's setting, and of the full size on the face of the scale,
    where they are worth reading: not at a figure, and on the rule."""
    kit, own, act = at.work.kit, step.setting, step.source.act if step.source else None
    entry = at.entry(step.line)
    if own is None or own.is_angle or isinstance(act, GoOver):
        return
    # Where the datum lies on the paper is the desk's choice, and no size of the part.
    if entry is None or entry.statement.kind == "datum":
        return
    if isinstance(act, Swing | StepOff) and act.setting.free:
        return
    yield from worth_reading(kit, own.drawn, Fraction(1))
    ratio = at.work.sheet.scale.ratio
    if ratio != 1 and ratio in kit.faces and at.work.solution.unit is kit.unit:
        yield from worth_reading(kit, own.actual, ratio)


def worth_reading(kit: Kit, size: float, ratio: Fraction) -> Iterator[tuple[int, Fraction]]:
    """Yield the graduation a size is read at on a face, and the face, if it takes reading."""
    step = kit.graduation / ratio
    number = round(size / float(step))
    value = number * step
    piece = RulePiece(kit.unit, step, ratio, 0, 0)
    if 0 < value * ratio <= kit.length and piece.rank(value) > 0:
        yield number, ratio


def reading(key: str, kit: Kit, number: int, ratio: Fraction, line: int) -> Question:
    """Make the question what the rule says at a pointer.

    Parameters
    ----------
    key : str
    kit : Kit
    number : int
        The graduation, counted from nought.
    ratio : Fraction
        Of the face.
    line : int
        Statement it is about; 0 for none.
    """
    step = kit.graduation / ratio
    piece = piece_about(number, kit.unit, step, ratio)
    return _question(
        key, f"What does {_face(ratio)} say at the pointer?", piece, piece, number, line
    )


def setting(key: str, kit: Kit, number: int, ratio: Fraction, line: int) -> Question:
    """Make the question where on the rule a size stands; parameters as of `reading`."""
    step = kit.graduation / ratio
    piece = piece_about(number, kit.unit, step, ratio)
    asks = f"Set the pointer to {piece.told(number)} {kit.unit} on {_face(ratio)}."
    return _question(key, asks, piece, piece.without_pointer(), number, line)


def _face(ratio: Fraction) -> str:
    if ratio == 1:
        return "the rule"
    named = f"1:{1 / ratio}" if ratio < 1 else f"{ratio}:1"
    return f"the {named} face of the rule"


def _question(
    key: str, asks: str, piece: RulePiece, shown: RulePiece, number: int, line: int
) -> Question:
    value, unit = number * piece.step, piece.unit
    figured = piece.figured
    before = value // figured * figured
    told = spell(value, unit)
    return Question(
        key,
        "reading",
        asks,
        "length",
        line,
        float(value),
        0,
        unit.value,
        float(piece.step) / 2,
        slips=tuple(_slips(piece, number)),
        hints=(
            "Which figure stands before the pointer?",
            "What is the size from one of the finest marks to the next?",
            f"{spell(before, unit)} and how many marks of {spell(piece.step, unit)}?",
        ),
        working=(
            f"{spell(before, unit)} and {(value - before) / piece.step} marks of "
            f"{spell(piece.step, unit)} are {told}",
        ),
        rule_shown=shown,
    )


def _slips(piece: RulePiece, number: int) -> Iterator[Slip]:
    """Yield what the eye reads wrong on a rule (common practice, no source)."""
    value, figured, unit = number * piece.step, piece.figured, piece.unit
    before = value // figured * figured
    beyond = value - before
    half = figured / 2

    def slip(key: str, weight: int, answer: Fraction, said: str) -> Slip:
        return Slip(key, weight, float(answer), said)

    known = [
        slip("a main mark out", 6, value + figured, f"Counted on from {spell(before, unit)}"),
        slip("a main mark out", 6, value - figured, f"Counted on from {spell(before, unit)}"),
        slip("a main mark out", 4, value + half, "The middle mark was taken for the other"),
        slip("a main mark out", 4, value - half, "The middle mark was taken for the other"),
        slip(
            "counted backwards",
            4,
            before + figured - beyond,
            f"Counted on from {spell(before, unit)}, not back from {spell(before + figured, unit)}",
        ),
        slip("a mark out", 4, value + piece.step, "One mark too many was counted"),
        slip("a mark out", 4, value - piece.step, "One mark was left out"),
        slip("point slipped", 3, value * 10, "Put the point right"),
        slip("point slipped", 3, value / 10, "Put the point right"),
    ]
    known += [
        slip(
            "marks taken for other ones",
            4,
            before + beyond * times,
            f"From mark to mark it is {spell(piece.step, unit)}",
        )
        for times in (2, Fraction(1, 2))
        if beyond
    ]
    if piece.ratio != 1:
        known.append(
            slip("the wrong face", 4, value * piece.ratio, "Read on the face at full size")
        )
    if unit is Unit.INCH:
        known.append(
            slip("mm for inch", 2, value * Fraction(254, 10), "The other face of the rule")
        )
    near = float(piece.step) / 2
    far = [each for each in known if abs(float(each.answer) - float(value)) > near]
    yield from sorted((each for each in far if float(each.answer) > 0), key=lambda s: -s.weight)
