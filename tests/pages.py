"""What browser tests wait for: states, never time."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Page


def still(page: Page) -> None:
    """Wait until nothing on a page moves or fades any more."""
    page.wait_for_function(
        "() => document.getAnimations().every((each) => each.playState !== 'running')"
    )


def painted(page: Page, frames: int = 3) -> None:
    """Wait until a page has been painted so many times more."""
    page.evaluate(
        """async (frames) => {
            for (let k = 0; k < frames; k++) await new Promise(requestAnimationFrame);
        }""",
        frames,
    )


def go(page: Page, place: str) -> None:
    """Go to a place of the bar, folded or not."""
    folded = page.get_by_role("button", name=re.compile("^(Places|This job): "))
    link = page.get_by_role("link", name=place, exact=True)
    for fold in folded.all() if folded.first.is_visible() else []:
        fold.click()
        if link.is_visible():
            break
        page.keyboard.press("Escape")
    link.click()


def new_job(page: Page, desk: str) -> None:
    """Begin a job with what is offered."""
    page.goto(desk)
    page.get_by_role("button", name="New job").click()
    page.get_by_role("button", name="Begin", exact=True).click()
    page.get_by_role("heading", name="Order of work").wait_for()


AXE = Path("frontend/node_modules/axe-core/axe.min.js").read_text("utf-8")
RULES = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']"


def sound(page: Page, what: str = "", within: str = "html") -> None:
    """A page breaks no rule of WCAG 2.1 A and AA as axe-core, a general checker, knows them: names, roles, structure;
    contrast in the light and in the dark."""
    still(page)
    if not page.evaluate("() => 'axe' in window"):
        page.evaluate(AXE)
    page.emulate_media(color_scheme="light")
    wrong = _violations(page, within, RULES)
    page.emulate_media(color_scheme="dark")
    wrong += _violations(page, within, "{type: 'rule', values: ['color-contrast']}")
    page.emulate_media(color_scheme="light")
    assert not wrong, f"{what}\n" + "\n".join(wrong)


def _violations(page: Page, within: str, rules: str) -> list[str]:
    found: list[str] = page.evaluate(
        f"""async () => {{
            const found = await axe.run('{within}', {{runOnly: {rules}, resultTypes: ['violations']}});
            return found.violations.flatMap(({{id, nodes}}) =>
                nodes.map((node) => `${{id}}: ${{node.target}} ${{node.failureSummary}}`));
        }}"""
    )
    return found
