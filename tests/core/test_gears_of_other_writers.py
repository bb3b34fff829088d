"""Gears by a writer of its own: teeth of involutes as polylines and splines come back as the gear that was drawn.

The involute and the thickness of a tooth are worked out here from their definitions (handbook formulas)."""

import cmath
import io
import math
from dataclasses import dataclass

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.desk import work_out
from entrick.core.readback import ReadBack, read_back, read_profile
from examples import examples, some


@dataclass(frozen=True)
class Wheel:
    """What a gear is drawn by."""

    module: float
    teeth: int
    pressure: float = 20.0
    shift: float = 0.0
    backlash: float = 0.0
    dedendum: float = 1.25
    turned: float = 0.1


def inv(angle: float) -> float:
    return math.tan(angle) - angle


def flanks(
    wheel: Wheel, places: int = 12
) -> list[tuple[complex, list[complex], list[complex], complex]]:
    """Return every tooth: where it rises from the root, both flanks, where it comes down; below the base it is radial."""
    a, m = math.radians(wheel.pressure), wheel.module
    pitch = m * wheel.teeth / 2
    base, outside = pitch * math.cos(a), pitch + (1 + wheel.shift) * m
    root = pitch - (wheel.dedendum - wheel.shift) * m
    thick = math.pi * m / 2 - wheel.backlash / 2 + 2 * wheel.shift * m * math.tan(a)
    whole = thick / (2 * pitch) + inv(a)
    start = max(base, root)
    radii = [start + (outside - start) * k / (places - 1) for k in range(places)]
    found = []
    for k in range(wheel.teeth):
        at = wheel.turned + math.tau * k / wheel.teeth
        half = [whole - inv(math.acos(min(1.0, base / r))) for r in radii]
        rise = [cmath.rect(r, at - h) for r, h in zip(radii, half, strict=True)]
        fall = [cmath.rect(r, at + h) for r, h in zip(radii, half, strict=True)][::-1]
        found.append((cmath.rect(root, at - half[0]), rise, fall, cmath.rect(root, at + half[0])))
    return found


def polyline(wheel: Wheel, places: int) -> bytes:
    document = ezdxf.new(units=4)
    spots = [p for a, rise, fall, b in flanks(wheel) for p in (a, *rise, *fall, b)]
    rows = [(round(p.real, places), round(p.imag, places)) for p in spots]
    document.modelspace().add_lwpolyline(rows, close=True)
    return _bytes(document)


def splines(wheel: Wheel) -> bytes:
    document = ezdxf.new(units=4)
    space = document.modelspace()
    teeth = flanks(wheel)
    for k, (a, rise, fall, b) in enumerate(teeth):
        for flank in (rise, fall):
            space.add_spline([(p.real, p.imag) for p in flank])
        ways = [(rise[-1], fall[0]), (b, teeth[(k + 1) % len(teeth)][0])]
        for p, q in ways:
            ends = (math.degrees(cmath.phase(p)), math.degrees(cmath.phase(q)))
            space.add_arc((0, 0), abs(p), *ends)
        space.add_line((a.real, a.imag), (rise[0].real, rise[0].imag))
        space.add_line((fall[-1].real, fall[-1].imag), (b.real, b.imag))
    return _bytes(document)


def _bytes(document: ezdxf.document.Drawing) -> bytes:
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def again(data: bytes) -> ReadBack:
    return read_back(read_profile(data, "wheel.dxf"))


WHEELS = (
    (Wheel(4, 18), "18 teeth, module 4, turned"),
    (Wheel(2.5, 31, 14.5), "31 teeth, module 2.5, pressure 14.5°, turned"),
    (Wheel(3, 12, shift=0.3), "12 teeth, module 3, profile shift 0.3, turned"),
    (Wheel(5, 24, backlash=0.2), "24 teeth, module 5, backlash 0.2, turned"),
    (Wheel(4, 40, dedendum=1.157), "40 teeth, module 4, proportions older, turned"),
    (Wheel(6, 22, 25), "22 teeth, module 6, pressure 25°, turned"),
)


@pytest.mark.parametrize(
    ("wheel", "said", "places"), some([(*each, n) for each in WHEELS for n in (4, 6)], 6)
)
def test_a_gear_of_another_writer_is_one_row(wheel: Wheel, said: str, places: int) -> None:
    found = again(polyline(wheel, places))
    assert f"gear, about O, {said}" in found.text, found.text
    assert found.text.count("\n") < 10
    assert any("follows a gear of" in row for row in found.told), (
        "that its roots are others is told"
    )
    (loop,) = work_out(found.text).outlines
    tips = {
        round(cmath.phase(complex(*p.curve.middle)) % (math.tau / wheel.teeth), 3)
        for p in loop.pieces
        if hasattr(p.curve, "middle")
        and abs(abs(p.entry) - wheel.module * (wheel.teeth / 2 + 1 + wheel.shift)) < 1e-3
        and abs(p.curve.centre) < 1e-6
    }
    assert tips == {round(wheel.turned % (math.tau / wheel.teeth), 3)}, (
        "the teeth stand where they stood"
    )


@examples(4)
@given(
    st.sampled_from([1.5, 2.0, 3.0, 4.5]),
    st.integers(14, 40),
    st.sampled_from([20.0, 14.5, 25.0]),
    st.sampled_from([0.0, 0.2, -0.1]),
    st.floats(0, 6),
)
def test_any_gear_comes_back_by_its_teeth_module_pressure_and_shift(
    module: float, teeth: int, pressure: float, shift: float, turned: float
) -> None:
    said = again(polyline(Wheel(module, teeth, pressure, shift, turned=turned), 5)).text
    assert f"{teeth} teeth, module {module:g}" in said
    assert ("pressure" in said) == (pressure != 20)
    assert ("profile shift" in said) == (shift != 0)
    if shift:
        assert f"profile shift {shift:g}" in said


def test_flanks_as_splines_are_a_gear_too() -> None:
    assert "18 teeth, module 4" in again(splines(Wheel(4, 18))).text


def test_what_is_toothed_and_no_gear_is_none() -> None:
    """A star, and a saw: as many points, no involutes."""
    for inner, lean in ((26.0, 0.0), (28.0, 0.06)):
        document = ezdxf.new(units=4)
        spots = [
            cmath.rect(34 if k % 2 else inner, math.tau * k / 48 + lean * (k % 2))
            for k in range(48)
        ]
        document.modelspace().add_lwpolyline([(p.real, p.imag) for p in spots], close=True)
        assert "gear" not in again(_bytes(document)).text
