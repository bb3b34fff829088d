"""How many examples a property is tried on: a few at each push, always the same; many new ones in the deep run."""

from __future__ import annotations

import os
from collections.abc import Sequence
from typing import Any, TypeVar

from hypothesis import HealthCheck, settings

FEW = 8
DEEPER = 40
"""Times as many examples in the deep run."""

IS_DEEP = os.environ.get("ENTRICK_TESTS") == "deep"

T = TypeVar("T")

SLOW_IS_FINE = [
    HealthCheck.too_slow,
    HealthCheck.function_scoped_fixture,
    HealthCheck.filter_too_much,
    HealthCheck.data_too_large,
]

settings.register_profile(
    "push", max_examples=FEW, derandomize=True, deadline=None, suppress_health_check=SLOW_IS_FINE
)
settings.register_profile(
    "deep",
    max_examples=FEW * DEEPER,
    deadline=None,
    print_blob=True,
    suppress_health_check=SLOW_IS_FINE,
)
settings.load_profile("deep" if IS_DEEP else "push")


def examples(few: int, **more: Any) -> settings:
    """Try a dear property on so few at each push; the deep run takes as many times as of the others."""
    return settings(max_examples=few * (DEEPER if IS_DEEP else 1), **more)


def some(every: Sequence[T], few: int) -> list[T]:
    """Take so many at each push, evenly from first to last; all of them in the deep run."""
    if IS_DEEP or len(every) <= few:
        return list(every)
    return [every[round(k * (len(every) - 1) / max(few - 1, 1))] for k in range(few)]
