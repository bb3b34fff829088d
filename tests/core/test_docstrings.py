"""The examples in the docstrings of the core are true."""

import doctest
import importlib
from pathlib import Path

import pytest

import entrick

SOURCES = Path(entrick.__file__).parent
MODULES = [
    ".".join(("entrick", *path.relative_to(SOURCES).with_suffix("").parts))
    for path in sorted((SOURCES / "core").rglob("*.py"))
    if ">>>" in path.read_text("utf-8")
]


@pytest.mark.parametrize("name", MODULES)
def test_the_examples_of_a_module_hold(name: str) -> None:
    module = importlib.import_module(name.removesuffix(".__init__"))
    found = doctest.testmod(module, optionflags=doctest.ELLIPSIS | doctest.NORMALIZE_WHITESPACE)
    assert found.attempted > 0
    assert found.failed == 0
