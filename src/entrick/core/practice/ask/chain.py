"""A link of a chain."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...plan.document import Chain
from ..question import Question, Slip
from .context import Context

PLACE = 9
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask for the link of a chain that is left open, from the others."""
    solution = at.work.solution
    for entry in solution.givens:
        chain = entry.given
        if not isinstance(chain, Chain) or entry.quantity is None or None not in chain.links:
            continue
        values = [
            solution.quantities.get(f"{chain.name}.{n}") for n in range(1, len(chain.links) + 1)
        ]
        if any(value is None for value in values):
            continue
        sizes = [float(value.value) for value in values if value is not None]
        missing = chain.links.index(None)
        unit, whole, right = solution.unit.value, sum(sizes), sizes[missing]
        shown = " ".join("?" if n == missing else f"{size:g}" for n, size in enumerate(sizes))
        own = [
            Slip(
                "link left out",
                4,
                right + size,
                f"The links add to {whole - right:g}; {size:g} is missing in it",
            )
            for n, size in enumerate(sizes)
            if n != missing
        ]
        own.append(Slip("overall for the link", 3, whole, f"{whole:g} is the overall size"))
        near = float(at.work.kit.graduation) / 2
        slips = tuple(slip for slip in own if abs(float(slip.answer) - right) > 4 * near)
        asks = (
            f"Chain {chain.name}: {shown}, overall {whole:g}. How long is the missing link, at "
            "full size?"
        )
        yield Question(
            f"chain:{entry.line}",
            "chain",
            asks,
            "length",
            entry.line,
            right,
            0,
            unit,
            near,
            slips=slips,
            working=(f"{whole:g} − {whole - right:g} = {right:g}",),
            hints=("All the links together are the overall size",),
        )
