"""The examples of the documents are true."""

import re
from pathlib import Path

import pytest

from entrick.core.desk import work_out
from entrick.core.handbook import whole
from entrick.core.moves import kinds
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan

PAGE = Path("docs/plan-language.md").read_text("utf-8")
EXAMPLES = re.findall(r"```entrick\n(.*?)```", PAGE, re.DOTALL)


@pytest.mark.parametrize("text", EXAMPLES)
def test_every_example_of_the_plan_language_works_out(text: str) -> None:
    assert work_out(text).solution.errors == ()
    assert write_plan(read_plan(text)) == text, "examples stand in canonical spacing"


def test_the_guide_is_what_the_kinds_declare() -> None:
    """`make docs` writes it."""
    assert set(re.findall(r"^### (.+)$", PAGE, re.MULTILINE)) == set(kinds())
    assert whole() == PAGE


def test_pictures_and_pages_named_in_the_readme_are_there() -> None:
    readme = Path("README.md").read_text("utf-8")
    for target in re.findall(r"\]\(([^)#:]+)\)", readme):
        assert Path(target).exists(), target
    assert "make demo" in readme
    assert "make test" in readme
