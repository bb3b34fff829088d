"""Do the chains of dimensions add up, and what did a missing link come to?"""

from __future__ import annotations

from collections.abc import Iterator

from ..measure import spell
from ..plan.document import Chain
from ..plan.terms import write
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report each chain with its sum, and each link that was found as a difference."""
    solution, unit = checked.solution, checked.solution.unit
    for entry in solution.givens:
        chain = entry.given
        if not isinstance(chain, Chain) or entry.quantity is None:
            continue
        total = spell(entry.quantity.value, unit)
        if None in chain.links:
            link = solution.quantities[f"{chain.name}.{chain.links.index(None) + 1}"]
            message = (
                f"the missing link of {chain.name} is the difference: "
                f"{spell(link.value, unit)}, of {total} in all"
            )
            yield Finding("note", "chain", message, entry.line)
        elif chain.overall is not None:
            yield Finding(
                "good",
                "chain",
                f"{chain.name} comes to {total}, as {write(chain.overall)} says",
                entry.line,
            )
        else:
            yield Finding(
                "good",
                "chain",
                f"{chain.name} comes to {total}; say its overall size to check it",
                entry.line,
            )
