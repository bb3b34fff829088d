"""The samples of the Osierbank Lock Yard: plans and a profile.

Nothing of the register is loaded with them: workers have no use for it."""

from __future__ import annotations

from importlib import resources


def sample_plans() -> dict[str, str]:
    """Return the text of every sample plan by file name."""
    folder = resources.files(__package__) / "plans"
    return {
        file.name: file.read_text("utf-8")
        for file in sorted(folder.iterdir(), key=lambda f: f.name, reverse=True)
    }


def sample_profile() -> tuple[str, str]:
    """Return the name and the text of a bare profile: a part of the yard whose givens are gone."""
    (file,) = (resources.files(__package__) / "profiles").iterdir()
    return file.name, file.read_text("ascii")
