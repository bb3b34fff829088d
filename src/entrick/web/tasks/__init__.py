"""What the desk is asked to work out, as functions of what was sent: a file for each subject. They run at a hand, away
from Flask and the database, and keep nothing but what is quicker to keep than to work out again."""

from .board import around, compared, instrument, lacking, measured, opened, picture, rehearsal, schedules
from .files import cut, export, read_back_profile, text_alone
from .inspection import proof
from .plans import unworked, work
from .practice import class_marks, papers, practice_answer, practice_hint, practice_opened, practice_round, set_part
from .register import summary
from .worksheets import worksheet, worksheet_file
from .writing import brief, completion, lesson, regions, sheet_choices, suggest, vocabulary

__all__ = [
    "around", "brief", "class_marks", "compared", "completion", "cut", "export", "instrument", "lacking", "lesson",
    "measured", "opened", "papers", "picture", "practice_answer", "practice_hint", "practice_opened",
    "practice_round", "proof", "read_back_profile", "regions", "rehearsal", "schedules", "set_part",
    "sheet_choices", "suggest", "summary", "text_alone", "unworked", "vocabulary", "work", "worksheet",
    "worksheet_file",
]  # fmt: skip
