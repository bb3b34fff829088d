"""What ships and is others' work is named, with the text of its licence."""

import json
import re
from importlib import resources
from pathlib import Path

LICENCES = Path(str(resources.files("entrick"))) / "licences"


def test_every_licence_text_is_in_the_notice_and_the_other_way_round() -> None:
    named = set(
        re.findall(r"^(\S+\.txt) ", (LICENCES / "NOTICE.txt").read_text("utf-8"), re.MULTILINE)
    )
    assert named == {path.name for path in LICENCES.glob("*.txt")} - {"NOTICE.txt"}
    assert all((LICENCES / name).stat().st_size > 900 for name in named)


def test_the_libraries_of_the_bundle_are_those_that_are_locked() -> None:
    """Built anew after a library changed, the file changes with it: it is committed like the lock file."""
    locked = json.loads(Path("frontend/package-lock.json").read_text("utf-8"))["packages"]
    versions = {
        (key.rpartition("node_modules/")[2], each.get("version")) for key, each in locked.items()
    }
    said = re.findall(
        r"^Name: (.+)\nVersion: (.+)$", (LICENCES / "bundle.txt").read_text("utf-8"), re.MULTILINE
    )
    assert {"react", "react-dom", "react-router"} <= {name for name, _ in said}
    assert set(said) <= versions
