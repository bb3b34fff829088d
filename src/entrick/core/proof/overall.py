"""Does the part measure overall what was given?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Point
from ..kind.claims import Overall
from ..measure import spell
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report the overall size as measured on the outlines, against the overall size that was
    said."""
    if checked.failed_outlines:
        return  # the part is not whole without them
    if not checked.part:
        return
    boxes = [loop.box for _, _, loop in checked.part]
    low = Point(min(b[0].x for b in boxes), min(b[0].y for b in boxes))
    high = Point(max(b[1].x for b in boxes), max(b[1].y for b in boxes))
    size, unit = high - low, checked.solution.unit
    measured = f"{spell(size.x, unit)} across, {spell(size.y, unit)} up"
    claims = checked.claims(Overall)
    if not claims:
        yield Finding("good", "overall", f"overall {measured} {unit}, measured on the outline")
    for line, claim in claims:
        for way, said, found in (("across", claim.across, size.x), ("up", claim.up, size.y)):
            if said is None:
                continue
            message = f"{spell(found, unit)} {unit} {way}, measured on the outline"
            if abs(said - found) <= checked.close:
                yield Finding("good", "overall", f"{message}, as given", line)
            else:
                off = f"{spell(abs(found - said), unit)} too {'much' if found > said else 'little'}"
                yield Finding(
                    "wrong", "overall", f"{message}; {spell(said, unit)} is given, {off}", line
                )
