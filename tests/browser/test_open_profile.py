"""A bare profile opened: looked at, said in one way or another, and entered as a job."""

import re

import pytest
from playwright.sync_api import Page, expect

from pages import sound

NOISY = "".join(
    f"{x + 0.02 * (-1) ** k},{y + 0.02 * (-1) ** (k // 2)}\n"
    for k, (x, y) in enumerate(
        [(x, 0) for x in range(60)]
        + [(60, y) for y in range(40)]
        + [(60 - x, 40) for x in range(60)]
        + [(0, 40 - y) for y in range(40)]
    )
)


def choose(page: Page, name: str, text: str) -> None:
    page.get_by_label("Choose a profile").set_input_files(
        {"name": name, "mimeType": "text/plain", "buffer": text.encode()}
    )


def test_the_yards_profile_is_read_back_said_otherwise_and_entered(page: Page, desk: str) -> None:
    page.goto(f"{desk}/profile")
    page.get_by_role("button", name="Try one of the lock yard").click()
    expect(page.get_by_role("img", name="The profile as it came: 7 outlines")).to_be_visible()
    expect(page.get_by_text("13 numbers, its outlines exactly")).to_be_visible()
    seen = page.get_by_role("region", name="Seen in it")
    expect(seen).to_contain_text("3 holes on a pitch circle")
    expect(seen).to_contain_text("an opening: a slot")
    plan = page.get_by_label("The plan that was read back")
    expect(plan).to_have_value(re.compile("line, touching c1, touching c2, outer, above"))
    expect(page.locator("path.mark-outline, circle.mark-outline")).not_to_have_count(0)
    page.get_by_role("radio", name=re.compile("by coordinates alone")).check()
    expect(plan).not_to_have_value(re.compile("touching"))
    page.get_by_role("radio", name=re.compile("by its conditions")).check()
    page.get_by_label("Units").select_option("in")
    expect(plan).to_have_value(re.compile("units in"))
    page.get_by_label("Units").select_option("mm")
    expect(plan).to_have_value(re.compile("units mm"))
    page.get_by_role("button", name="Enter it in the register").click()
    expect(page.get_by_role("heading", name="OY-083-hinge-strap")).to_be_visible()
    page.get_by_role("tab", name="Revisions").click()
    expect(
        page.get_by_text(re.compile("read back from OY-083-hinge-strap.dxf by 13 numbers"))
    ).to_be_visible()


def test_points_that_scatter_ask_for_a_tolerance_and_come_back_within_it(
    page: Page, desk: str
) -> None:
    page.goto(f"{desk}/profile")
    choose(page, "lid.csv", NOISY)
    expect(page.get_by_role("alert")).to_contain_text("its points scatter")
    page.get_by_label("May be off by").fill("0,1")
    page.get_by_label("May be off by").press("Enter")
    expect(page.get_by_label("The plan that was read back")).to_have_value(
        re.compile("box, 60 by 40")
    )
    expect(page.get_by_role("region", name="Mended, left out, or assumed")).to_contain_text(
        "mm was assumed"
    )


def test_layers_are_chosen(page: Page, desk: str) -> None:
    def line(layer: str, *places: float) -> str:
        return (
            "0\nLINE\n8\n"
            + layer
            + "".join(f"\n{code}\n{v}" for code, v in zip((10, 20, 11, 21), places, strict=True))
        )

    square = [
        line("CUT", *a, *b)
        for a, b in [((0, 0), (30, 0)), ((30, 0), (30, 20)), ((30, 20), (0, 20)), ((0, 20), (0, 0))]
    ]
    body = "\n".join([*square, line("FOLD", 5, 0, 5, 20)])
    page.goto(f"{desk}/profile")
    choose(page, "tray.dxf", f"0\nSECTION\n2\nENTITIES\n{body}\n0\nENDSEC\n0\nEOF\n")
    expect(page.get_by_role("img", name="The profile as it came: 2 outlines")).to_be_visible()
    page.get_by_role("checkbox", name="CUT").check()
    expect(page.get_by_role("img", name="The profile as it came: 1 outlines")).to_be_visible()
    expect(page.get_by_role("region", name="Mended, left out, or assumed")).to_contain_text(
        "on other layers than CUT"
    )


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)])
def test_the_page_breaks_no_rule_of_access(page: Page, desk: str, size: tuple[int, int]) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.goto(f"{desk}/profile")
    page.get_by_role("button", name="Try one of the lock yard").click()
    expect(page.get_by_role("button", name="Enter it in the register")).to_be_visible()
    sound(page, "read back")
    assert page.evaluate("document.documentElement.scrollWidth") <= size[0]
