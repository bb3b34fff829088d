"""The real application, served on a free port, driven in Debian's Chromium."""

import threading
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import ConsoleMessage, Page, expect
from waitress.server import create_server

from entrick.core.summarize import summarize
from entrick.demo import load
from entrick.store import Store, add_job, open_store
from entrick.web.http.app import create_app
from entrick.web.http.pages import STATIC

# What must come, comes however busy the machine is: waits are for states, and no test is about speed.
expect.set_options(timeout=60_000)

CHROMIUM = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, object]:
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, object]:
    return {"viewport": {"width": 1280, "height": 800}, "accept_downloads": True}


@pytest.fixture
def store(tmp_path: Path) -> Store:
    return open_store(tmp_path / "register.db")


@pytest.fixture
def desk(store: Store) -> Iterator[str]:
    """Serve the desk with the sample jobs; return its address."""
    assert (STATIC / "index.html").is_file(), "the front end is not built: run make build"
    load(store, summarize)
    server = create_server(create_app(store), host="127.0.0.1", port=0, threads=4)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.effective_port}"
    server.close()


@pytest.fixture
def quiet(page: Page) -> Iterator[None]:
    """Fail a test in which the page complains: scripts, styles, refused content."""
    complaints: list[str] = []

    def hear(message: ConsoleMessage) -> None:
        # What is refused in words, or not answered, is told to the drafter; the browser notes it here as well.
        expected = any(
            sign in message.text
            for sign in ("404", "409", "422", "503", "net::ERR_FAILED", "net::ERR_ABORTED")
        )
        if message.type in ("error", "warning") and not expected:
            complaints.append(message.text)

    page.on("console", hear)
    page.on("pageerror", lambda error: complaints.append(str(error)))
    yield
    assert not complaints


@pytest.fixture
def bench(page: Page, desk: str, store: Store, quiet: None) -> Callable[[str], int]:
    """Put a plan in the register and open it on the bench."""

    def open_bench(text: str) -> int:
        with store.writing() as session:
            job = add_job(session, text)
        page.goto(f"{desk}/jobs/{job.id}")
        page.get_by_role("heading", name="Order of work").wait_for()
        return job.id

    return open_bench


@pytest.fixture
def click_stroke(page: Page) -> Callable[..., None]:
    """Click a drawn stroke where it is drawn, by the name a click on it refers to."""

    def click(name: str, along: float = 0.3) -> None:
        # What can be pointed at follows the sheet a moment later.
        page.wait_for_selector(f'g[data-name="{name}"] > *', state="attached")
        place = page.evaluate(
            """([name, along]) => {
                const shape = document.querySelector(`g[data-name="${name}"] > *`);
                const point = shape.getPointAtLength(shape.getTotalLength() * along)
                    .matrixTransform(shape.getScreenCTM());
                return [point.x, point.y];
            }""",
            [name, along],
        )
        page.mouse.click(*place)

    return click
