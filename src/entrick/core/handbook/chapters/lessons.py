"""A page for each lesson: what is done in it, task by task."""

from __future__ import annotations

from collections.abc import Sequence

from ...assist.lessons import Lesson, lessons
from ...desk import work_out
from ..page import Chapter, Page, listed, sections


def _pages() -> Sequence[Page]:
    return list(map(_page, lessons().values()))


def _page(lesson: Lesson) -> Page:
    names = lesson.names(work_out(""))
    rows = (f"{task.told.format_map(names)} {task.why.format_map(names)}" for task in lesson.tasks)
    told = sections(("What is done", listed(rows, numbered=True)), ("What comes next", lesson.end))
    return Page(lesson.key, lesson.title, lesson.about, told)


CHAPTER = Chapter("lessons", "Lessons", _pages)
