"""What all tests share."""

from __future__ import annotations

from collections.abc import Callable

import pytest

import examples  # noqa: F401 - the profiles of hypothesis are loaded with it
from entrick.core import fault
from entrick.core.desk import Work, work_out
from entrick.demo import sample_plans

fault.NET = False  # a fault of the desk falls through to the test it happens in

HEAD = "units mm\nsheet A3 landscape, scale 1:1, border 10\n"


@pytest.fixture(scope="session")
def work() -> Callable[[str], Work]:
    """Work out the statements of a millimetre plan."""
    return lambda rows: work_out(HEAD + rows)


@pytest.fixture(scope="session")
def samples() -> dict[str, str]:
    """The sample plans by file name."""
    return sample_plans()
