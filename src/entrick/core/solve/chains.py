"""The links of a chain; a missing one is what the others leave."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..measure import Dimension, Quantity, Unit, spell
from ..plan.document import Chain
from ..plan.errors import ClauseError
from ..plan.evaluate import evaluate
from ..plan.terms import write
from ..tolerance import same


def chain_links(chain: Chain, givens: Mapping[str, Quantity], unit: Unit) -> tuple[Quantity, ...]:
    """Work out every link of a chain; a missing one is the overall size less the others.

    Raises
    ------
    ClauseError
        When the links do not come to the overall size, or what is missing cannot be told.
    """
    missing = [index for index, link in enumerate(chain.links) if link is None]
    known = [evaluate(link, givens, unit) for link in chain.links if link is not None]
    for link, quantity in zip(
        [link for link in chain.links if link is not None], known, strict=True
    ):
        if quantity.dimension not in (Dimension.LENGTH, Dimension.PLAIN) or quantity.value <= 0:
            raise ClauseError(
                f"{write(link)} is no link of a chain: links are lengths above nought"
            )
    total = sum((quantity.value for quantity in known), start=known[0].value * 0) if known else 0
    overall = evaluate(chain.overall, givens, unit).value if chain.overall is not None else None
    if not missing:
        if overall is not None and abs(float(overall - total)) > same(float(overall)):
            message = (
                f"the links come to {spell(total, unit)}, the overall size is "
                f"{spell(overall, unit)}: "
            )
            if overall > total:
                raise ClauseError(
                    f"{message}{spell(overall - total, unit)} is missing", None, _add_link(chain)
                )
            raise ClauseError(f"{message}{spell(total - overall, unit)} too much")
        return tuple(known)
    if len(missing) > 1:
        raise ClauseError("one link can be found from the overall size, not several")
    if overall is None:
        raise ClauseError(
            "a missing link is the overall size less the others: say  overall  and the size"
        )
    if overall <= total:
        raise ClauseError(
            f"the other links come to {spell(total, unit)} already, and the overall size is "
            f"{spell(overall, unit)}"
        )
    known.insert(missing[0], Quantity(overall - total, Dimension.LENGTH))
    return tuple(known)


def _add_link(chain: Chain) -> tuple[str, str]:
    last = write(chain.links[-1]) if chain.links[-1] is not None else "?"
    return f"{last}, overall", f"{last} ?, overall"


def added(first: Quantity, second: Quantity) -> Quantity:
    return replace(first, value=first.value + second.value)
