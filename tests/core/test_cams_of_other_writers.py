"""Cams by a writer of its own: points along the profile come back as base circle, events, motions and follower.

Motions and the profile under a roller or a flat face are worked out here from their definitions (handbook formulas):
the roller's centre is at base + roller + lift, the profile a roller's radius square inside that curve; under a flat
face the profile touches the lines that stand square to the follower, base + lift out."""

import math
from collections.abc import Callable

import pytest

from entrick.core.desk import work_out
from entrick.core.readback import ReadBack, read_back, read_profile
from entrick.demo import sample_plans

HARMONIC: Callable[[float], float] = lambda x: (1 - math.cos(math.pi * x)) / 2  # noqa: E731
CYCLOIDAL: Callable[[float], float] = lambda x: x - math.sin(2 * math.pi * x) / (2 * math.pi)  # noqa: E731
PARABOLIC: Callable[[float], float] = lambda x: 2 * x * x if x < 0.5 else 1 - 2 * (1 - x) ** 2  # noqa: E731

Event = tuple[float, float, Callable[[float], float]]
"""Degrees, lift, motion."""


def lift(events: list[Event], degrees: float) -> float:
    height = 0.0
    for turn, by, motion in events:
        if degrees <= turn:
            return height + by * motion(degrees / turn)
        height, degrees = height + by, degrees - turn
    return height


def profile(
    events: list[Event], least: float, follower: str, roller: float = 0.0, offset: float = 0.0
) -> bytes:
    """Write points every half degree, the follower above, the cam turning clockwise; its line passes the centre by an
    offset to the right."""
    rows = []
    step = 1e-4
    for k in range(720):
        at = k / 2
        s = lift(events, at)
        v = (lift(events, min(at + step, 360)) - lift(events, max(at - step, 0))) / math.radians(
            min(at + step, 360) - max(at - step, 0)
        )
        turn = math.radians(90 + at)
        out, on = (math.cos(turn), math.sin(turn)), (-math.sin(turn), math.cos(turn))
        if follower == "flat":
            x, y = ((least + s) * out[i] + v * on[i] for i in (0, 1))
        else:
            far = math.sqrt((least + roller) ** 2 - offset**2) + s
            place = [far * out[i] - offset * on[i] for i in (0, 1)]
            way = [(v + offset) * out[i] + far * on[i] for i in (0, 1)]
            size = math.hypot(*way)
            x, y = place[0] - roller * way[1] / size, place[1] + roller * way[0] / size
        rows.append(f"{x:.4f},{y:.4f}")
    return "\n".join(["x [mm],y [mm]", *rows]).encode()


def again(data: bytes) -> ReadBack:
    return read_back(read_profile(data, "cam.csv"))


@pytest.mark.parametrize(
    ("events", "least", "follower", "roller", "said"),
    [
        (
            [(120, 28, HARMONIC), (60, 0, HARMONIC), (180, -28, CYCLOIDAL)],
            36,
            "roller",
            9,
            "least 36, roller radius 9, rise 120° by 28, dwell 60°, fall 180° by 28 cycloidal",
        ),
        (
            [(90, 20, CYCLOIDAL), (90, 0, HARMONIC), (90, -20, HARMONIC), (90, 0, HARMONIC)],
            40,
            "knife",
            0,
            "least 40, rise 90° by 20 cycloidal, dwell 90°, fall 90° by 20, dwell 90°",
        ),
        (
            [(150, 16, PARABOLIC), (30, 0, HARMONIC), (150, -16, PARABOLIC), (30, 0, HARMONIC)],
            60,
            "roller",
            12.5,
            "least 60, roller radius 12.5, rise 150° by 16 parabolic, dwell 30°, fall 150° by 16 parabolic, dwell 30°",
        ),
        (
            [(180, 14, HARMONIC), (120, -14, HARMONIC), (60, 0, HARMONIC)],
            50,
            "flat",
            0,
            "least 50, flat, rise 180° by 14, fall 120° by 14, dwell 60°",
        ),
    ],
    ids=["roller", "knife", "roller of two motions", "flat"],
)
def test_points_along_a_cam_come_back_as_its_events(
    events: list[Event], least: float, follower: str, roller: float, said: str
) -> None:
    found = again(profile(events, least, follower, roller))
    assert f"cam, about O, {said}\n" in found.text, found.text
    assert found.text.count("\n") < 9


@pytest.mark.parametrize(
    ("events", "least", "roller", "offset", "said"),
    [
        (
            [(120, 28, HARMONIC), (60, 0, HARMONIC), (150, -28, CYCLOIDAL), (30, 0, HARMONIC)],
            46,
            9,
            8,
            "least 46, roller radius 9, offset 8 right, "
            "rise 120° by 28, dwell 60°, fall 150° by 28 cycloidal, dwell 30°",
        ),
        (
            [(90, 20, CYCLOIDAL), (90, 0, HARMONIC), (120, -20, HARMONIC), (60, 0, HARMONIC)],
            50,
            10,
            -12,
            "least 50, roller radius 10, offset 12 left, "
            "rise 90° by 20 cycloidal, dwell 90°, fall 120° by 20, dwell 60°",
        ),
    ],
    ids=["right", "left"],
)
def test_a_follower_beside_the_centre_comes_back_with_its_offset(
    events: list[Event], least: float, roller: float, offset: float, said: str
) -> None:
    found = again(profile(events, least, "roller", roller, offset))
    assert f"cam, about O, {said}\n" in found.text, found.text


def test_a_round_with_a_flat_and_an_egg_are_no_cams() -> None:
    flatted = [
        (30 * math.cos(math.radians(k)), min(18.0, 30 * math.sin(math.radians(k))))
        for k in range(0, 360, 2)
    ]
    rows = "\n".join(f"{x:.4f},{y:.4f}" for x, y in flatted)
    assert "cam" not in again(rows.encode()).text


@pytest.mark.parametrize("number", ["071", "072"])
def test_a_cam_of_the_yard_comes_back_as_events(number: str) -> None:
    from entrick.core.formats import write_cutter_dxf

    text = next(text for name, text in sample_plans().items() if number in name)
    done = work_out(text)
    data = write_cutter_dxf([loop for loop in done.outlines if loop.closed], done.solution.unit)
    found = read_back(read_profile(data.encode(), "cam.dxf"))
    assert "= cam, about" in found.text, found.text
    if number == "072":
        said = (
            "least 46,",
            "roller radius 9,",
            "offset 8 right,",
            "by 14 cycloidal",
            "by 14 parabolic",
        )
        assert all(each in found.text for each in said), found.text
