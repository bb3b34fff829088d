"""One plan, one answer, whichever process is asked."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import answers
from entrick.demo import sample_plans
from examples import some

SHARED = ["OY-036", "OY-041"]
"""Samples in which several statements call one place by different names."""


def test_an_answer_does_not_hang_on_the_order_in_which_sets_come() -> None:
    others = [name[:6] for name in sample_plans() if name[:6] not in SHARED]
    wanted = [*SHARED, *some(others, 2)]
    command = [sys.executable, str(Path(answers.__file__)), *wanted]
    asked = [
        subprocess.Popen(
            command, env={**os.environ, "PYTHONHASHSEED": seed}, stdout=subprocess.PIPE
        )
        for seed in ("1", "2")
    ]
    one, other = (json.loads(each.communicate(timeout=300)[0]) for each in asked)
    assert len(one) == len(wanted) * len(answers.ASKED)
    assert all(told.startswith("200 ") for told in one.values())
    assert one == other
