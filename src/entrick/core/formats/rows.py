"""Settings as CSV, for a table on the wall or another program."""

from __future__ import annotations

from collections.abc import Sequence

from ..board.kit import Kit
from ..board.steps import BoardStep
from ..spreadsheet import write_table

COLUMNS = (
    "step",
    "statement",
    "instrument",
    "what to do",
    "actual",
    "drawn",
    "unit",
    "reading",
    "rounding error",
    "as it is",
)


def settings_csv(
    steps: Sequence[BoardStep],
    kit: Kit,
    before: Sequence[BoardStep] = (),
    after: Sequence[BoardStep] = (),
) -> str:
    """Write every board step with its setting; lengths in the unit of the rule, RFC 4180 line ends.

    Parameters
    ----------
    steps : sequence of BoardStep
    kit : Kit
    before, after : sequence of BoardStep
        How the sheet is made ready and finished; their numbers stand behind a word.

    Returns
    -------
    str
    """
    rows: list[Sequence[object]] = [COLUMNS]
    numbered = [
        *((f"ready {step.number}", step) for step in before),
        *((str(step.number), step) for step in steps),
        *((f"finish {step.number}", step) for step in after),
    ]
    for number, step in numbered:
        row: list[object] = [number, step.name, step.tool, step.text]
        if step.setting:
            unit = "deg" if step.setting.is_angle else str(kit.unit)
            row += [
                f"{step.setting.actual:.6g}",
                f"{step.setting.drawn:.6g}",
                unit,
                step.setting.reading,
                f"{step.setting.error:+.4g}",
                "as it is" if step.setting.kept else "",
            ]
        rows.append(row)
    return write_table(rows)
