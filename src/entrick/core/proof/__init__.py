"""Inspection: one file per rule. A module with ``inspect`` is a rule."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from .finding import Checked, Finding, Mend, Rule

__all__ = [
    "Checked",
    "Finding",
    "Mend",
    "Rule",
    "findings",
    "found_by",
    "rule_keys",
    "rules",
    "sorted_findings",
    "what_goes_out",
    "why_not_cut",
]


def rule_keys() -> tuple[str, ...]:
    """Return what the rules are called, as `rules` has them: by their files."""
    return tuple(_key(rule) for rule in rules())


def _key(rule: Rule) -> str:
    return rule.__module__.rpartition(".")[2]


def found_by(rule: Rule, checked: Checked) -> Iterator[Finding]:
    """Yield what a rule finds, each with the page it stands on."""
    return (replace(finding, page=_key(rule)) for finding in rule(checked))


@cache
def rules() -> tuple[Rule, ...]:
    """Return every rule."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    return tuple(module.inspect for module in modules if hasattr(module, "inspect"))


_ORDER = {"wrong": 0, "look": 1, "note": 2, "good": 3}


def findings(checked: Checked) -> tuple[Finding, ...]:
    """Return what every rule finds, most serious first."""
    return sorted_findings([each for rule in rules() for each in found_by(rule, checked)])


def sorted_findings(found: Iterable[Finding]) -> tuple[Finding, ...]:
    """Return findings, most serious first."""
    return tuple(sorted(found, key=lambda finding: (_ORDER[finding.weight], finding.line)))


def what_goes_out(checked: Checked) -> str:
    """Tell how many outlines and holes a file for a cutter holds; empty where there are none."""
    holes = sum(outline.is_hole for outline in checked.outlines)
    rims = len(checked.outlines) - holes
    if not rims:
        return ""
    words = f"{rims} outline{'s' if rims > 1 else ''}"
    return f"{words} and {holes or 'no'} hole{'s' if holes != 1 else ''} go out"


_CUT_RULES = frozenset({"outline", "doubled", "material"})


def why_not_cut(found: tuple[Finding, ...]) -> str:
    """Return why an outline should not go to a cutter as it is, empty when nothing speaks against
    it.

    An open run, a doubled piece, an outline that crosses itself or another, a hole in nothing: a
    cutter would start and not come back, go over an edge twice, or cut where nobody looked. Nor
    what could not be inspected."""
    reasons = [
        f.message
        for f in found
        if f.rule in ("open", "fault") or (f.rule in _CUT_RULES and f.weight in ("wrong", "look"))
    ]
    return "; ".join(dict.fromkeys(reasons))
