"""From the core's results to what crosses the API: practice."""

from __future__ import annotations

from collections.abc import Mapping
from urllib.parse import urlencode

from ...core.practice.mark import Mark
from ...core.practice.question import RULES, Question
from ...core.practice.sets import answer_of
from ...core.practice.spacing import Card
from ..schemas.practice import NamedSlipOut, QuestionOut, VerdictInPractice


def question(asked: Question, known: Mapping[str, Card], now: float) -> QuestionOut:
    """Present a question without its answer."""
    keys = (asked.rule, *(slip.key for slip in asked.slips))
    return QuestionOut(
        key=asked.key, rule=asked.rule, tests=RULES[asked.rule], asks=asked.asks, sort=asked.sort, line=asked.line,
        step=asked.step, unit=asked.unit, choices=asked.choices, hints=len(asked.hints), tool=asked.setting,
        shows=asked.shows, lettered=asked.rule == "candidate", pointed=asked.rule == "next",
        due=any(key in known and known[key].due <= now for key in keys),
    )  # fmt: skip


def picture_at(tool: str, value: float, unit: str) -> str:
    """Return the address of the picture of an instrument at a setting."""
    said = {"tool": tool, "value": f"{value:.6g}", "unit": unit, "graduation": "1/2" if unit == "mm" else "1/32"}
    return f"/api/pictures/setting.svg?{urlencode(said)}"


def verdict_in_practice(asked: Question, mark: Mark, share: float) -> VerdictInPractice:
    """Present what came of an answer."""
    right = asked.right
    picture = ""
    if asked.setting and isinstance(right, float | int):
        picture = picture_at(asked.setting, float(right), asked.unit)
    return VerdictInPractice(
        share=share, told=mark.told, slips=tuple(NamedSlipOut(key=s.key, said=s.said) for s in mark.slips),
        right=answer_of(asked), working=asked.working, picture=picture,
    )  # fmt: skip
