"""``title``: what the title block says beyond the plan's own title, number, scale and units."""

from __future__ import annotations

from ..drawing.notes import TitleFields
from ..geometry import Point
from ..kind import Args, Kind, Made
from ..plan.errors import Wanting
from ..plan.forms import Form

FIELDS = ("drawn", "checked", "approved", "date", "sheet", "material")
"""Fields after ISO 7200; the projection is shown by its symbol."""


def construct(args: Args) -> Made:
    """Fill the second row of the title block."""
    said = {clause.key: clause.word("text") for clause in args.all(*FIELDS)}
    projection = args.get("projection")
    if projection:
        said["projection"] = projection.word("which")
    if not said:
        raise Wanting(f"say at least one of {', '.join(FIELDS)} or projection")
    return Made(
        Point(0.0, 0.0),
        "Title block: " + ", ".join(f"{key} {text}" for key, text in said.items()) + ".",
        notes=(TitleFields(tuple(said.items())),),
        nothing=True,
        draw=lambda work: work.finish(
            "Letter the title block between guide lines", "letter", check="every field is filled"
        ),
    )


ABOUT = """\
The second row of the title block: `drawn`, `checked`, `approved`, `date`, `sheet`, `material` in
quotes, and the symbol of the `projection`, `first` or `third`. In an office of several people the
first four are filled in as the sheet is issued, by who did it, where the plan does not say them.
"""

SHOWN = """\
plan "Cover"
drawing OY-901
units mm
O = datum
c = circle, centre O, radius 20
t = title, drawn "apprentice", checked "foreman", date "25 Nov 2026", sheet "1 of 1", material "brass", projection first
"""  # noqa: E501

KIND = Kind(
    name="title",
    group="Finish",
    summary="drawn, checked, date, sheet, material, projection",
    example='block = title, drawn "A", checked "B", date "24 Nov 2026", sheet "1 of 1", '
    "projection first",
    mistake="A field is left empty: whoever picks the sheet up cannot tell whether it was checked.",
    also=("title block", "heading"),
    forms=(
        *(Form(f"{field} {{text:text}}", field) for field in FIELDS),
        Form("projection {which:first/third}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
