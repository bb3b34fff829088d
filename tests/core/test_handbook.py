"""The handbook: every page is made, solves, is found, and leads to pages that are there."""

import re
from xml.etree import ElementTree

import pytest

from entrick.core.desk import work_out
from entrick.core.handbook import Page, as_markdown, chapters, figure, find, page_of, pages_of
from entrick.core.moves import kinds
from entrick.core.proof import rule_keys
from entrick.core.rules.motion import MOTIONS
from examples import some

EVERY = [(chapter.key, page) for chapter in chapters() for page in pages_of(chapter.key)]
DRAWN = [page for _, page in EVERY if page.plan]


def test_every_kind_rule_and_motion_has_a_page() -> None:
    assert {page.key for page in pages_of("constructions")} == set(kinds())
    assert set(rule_keys()) < {page.key for page in pages_of("inspection")}
    assert {page.key for page in pages_of("motions")} == set(MOTIONS)


def test_no_two_pages_share_an_address() -> None:
    assert len({(chapter, page.key) for chapter, page in EVERY}) == len(EVERY)


@pytest.mark.parametrize("page", DRAWN, ids=lambda page: page.key)
def test_the_plan_of_a_page_works_out(page: Page) -> None:
    assert work_out(page.plan).solution.errors == ()


@pytest.mark.parametrize("page", some(DRAWN, 12), ids=lambda page: page.key)
@pytest.mark.parametrize("small", [True, False])
def test_a_figure_is_drawn_within_its_box(page: Page, small: bool) -> None:
    picture = ElementTree.fromstring(figure(page, small))
    box = [float(each) for each in picture.attrib["viewBox"].split()]
    assert min(box[2:]) > 1
    assert len(picture) > 0
    assert ("text" in {each.tag.rpartition("}")[2] for each in picture.iter()}) <= (not small)


@pytest.mark.parametrize(
    ("chapter", "page"), some(EVERY, 30), ids=lambda each: getattr(each, "key", each)
)
def test_a_page_says_something_and_leads_nowhere_that_is_not_there(
    chapter: str, page: Page
) -> None:
    told = as_markdown(chapter, page.key)
    assert len(told) > 40
    assert "None" not in told
    for target in re.findall(r"\]\(/handbook/(\w+)/([^)]+)\)", told):
        assert page_of(*target), target


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("rows of holes", "holes"),
        ("bolt circle", "holes"),
        ("hexagon", "polygon"),
        ("across flats", "polygon"),
        ("keyseat", "keyway"),
        ("coordinates", "points"),
        ("bevel", "chamfer"),
    ],
)
def test_a_kind_is_found_by_what_other_offices_call_it(words: str, kind: str) -> None:
    assert find(words)[0][1].key == kind
    assert find(f"  {words.upper()} ")[0][1].key == kind


def test_what_is_not_there_is_not_found() -> None:
    assert find("perpetual motion") == ()
    assert find("") == ()
    with pytest.raises(KeyError):
        as_markdown("constructions", "wheelbarrow")
