"""What all that crosses the API is made of. Numbers are in stated units; words for people come from
the core."""

from __future__ import annotations

from typing import Annotated, Any, Self, get_args

from pydantic import BaseModel, ConfigDict, Field

from ..core.drawing.marks import DisplayList, Mark
from ..core.plan.document import LONGEST_LINE, MOST_CHARACTERS
from ..core.plan.errors import PlanError
from ..records import Schedule

PlanText = Annotated[str, Field(max_length=MOST_CHARACTERS)]
RowText = Annotated[str, Field(max_length=LONGEST_LINE * 2)]
KitText = Annotated[str, Field(max_length=8000)]
"""A kit as the text of its file; empty for the small kit of the plan's unit."""

Whole = Annotated[int, Field(ge=-(2**31), le=2**31)]
"""A line, a clause or a step by its number; one the plan does not have is told in words."""

Seed = Annotated[int, Field(ge=0, le=2**31)]
Spot = tuple[Annotated[float, Field(ge=-1e5, le=1e5)], Annotated[float, Field(ge=-1e5, le=1e5)]]
Marks = tuple[Mark, ...]

GIVEN = ConfigDict(json_schema_serialization_defaults_required=True)
"""Of what comes back every field is there, also one that is as usual."""

# Plain dataclasses of the core that cross as they are.
for _plain in (PlanError, DisplayList, *get_args(Mark)):
    setattr(_plain, "__pydantic_config__", GIVEN)  # noqa: B010 - the core knows nothing of it


class Crossing(BaseModel):
    """What crosses the API. How it is read and written is worked out when the first one does."""

    model_config = ConfigDict(defer_build=True, from_attributes=True, **GIVEN)

    @classmethod
    def from_core(cls, thing: object, **more: Any) -> Self:
        """Return what crosses of a thing of the core: its attributes by the names of the fields,
        and what is given here."""
        return cls.model_validate(
            {name: getattr(thing, name) for name in cls.model_fields if name not in more} | more
        )


class Asked(Crossing):
    """What is sent to the desk: a field it does not know is a mistake, and is told."""

    model_config = ConfigDict(extra="forbid")


class PlanIn(Asked):
    """A plan's text."""

    text: PlanText


class ScheduledIn(Asked):
    """A plan with the order in which its steps are done."""

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""
