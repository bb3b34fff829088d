"""Motions of a cam's follower: how far it has come at each share of an event, how fast, with what
acceleration."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

Shape = Callable[[float], tuple[float, float, float]]
"""From the share of the angle that is past to the share of the lift, its first and its second
derivative."""

ROUNDED = 1 / 6
"""Share of a rounded uniform motion that each rounded end takes: two parts of twelve (common
practice)."""


@dataclass(frozen=True)
class Motion:
    """One motion by name.

    Attributes
    ----------
    name : str
        As the plan says it.
    title : str
        As the trade says it.
    shape : callable
        Share to (share, velocity, acceleration), each per lift and per angle.
    breaks : tuple of float
        Shares at which the formula changes.
    velocity, acceleration : float
        Greatest, per lift over angle and per lift over angle squared; infinite where the velocity
        jumps.
    drawn : str
        How the board constructs it.
    radius : float
        Of its rounded ends on the displacement diagram, where it is stated; plan units.
    """

    name: str
    title: str
    shape: Shape
    breaks: tuple[float, ...]
    velocity: float
    acceleration: float
    drawn: str
    radius: float = 0.0


def _uniform(x: float) -> tuple[float, float, float]:
    return x, 1.0, 0.0


def _rounded(x: float) -> tuple[float, float, float]:
    top = 1 / (1 - ROUNDED)
    if x > 1 - ROUNDED:
        s, v, a = _rounded(1 - x)
        return 1 - s, v, -a
    if x < ROUNDED:
        return top * x * x / (2 * ROUNDED), top * x / ROUNDED, top / ROUNDED
    return top * (x - ROUNDED / 2), top, 0.0


def _harmonic(x: float) -> tuple[float, float, float]:
    turn = math.pi * x
    return (1 - math.cos(turn)) / 2, math.pi / 2 * math.sin(turn), math.pi**2 / 2 * math.cos(turn)


def _parabolic(x: float) -> tuple[float, float, float]:
    return (2 * x * x, 4 * x, 4.0) if x < 0.5 else (1 - 2 * (1 - x) ** 2, 4 * (1 - x), -4.0)


def _cycloidal(x: float) -> tuple[float, float, float]:
    turn = math.tau * x
    return x - math.sin(turn) / math.tau, 1 - math.cos(turn), math.tau * math.sin(turn)


def _polynomial(x: float) -> tuple[float, float, float]:
    return (
        x**3 * (10 - 15 * x + 6 * x * x),
        30 * x * x * (1 - x) ** 2,
        60 * x * (1 - x) * (1 - 2 * x),
    )


MOTIONS = {
    motion.name: motion
    for motion in (
        Motion("uniform", "uniform velocity", _uniform, (), 1.0, math.inf, "a straight line"),
        Motion(
            "rounded",
            "uniform velocity with rounded ends",
            _rounded,
            (ROUNDED, 1 - ROUNDED),
            1 / (1 - ROUNDED),
            1 / (1 - ROUNDED) / ROUNDED,
            "a straight line, its first and last two parts of twelve rounded",
        ),
        Motion(
            "harmonic",
            "simple harmonic motion",
            _harmonic,
            (),
            math.pi / 2,
            math.pi**2 / 2,
            "a semicircle on the lift, divided into as many parts as the angle",
        ),
        Motion(
            "parabolic",
            "uniform acceleration and retardation",
            _parabolic,
            (0.5,),
            2.0,
            4.0,
            "half the lift divided as 1 : 4 : 9 …, the other half mirrored",
        ),
        Motion(
            "cycloidal",
            "cycloidal motion",
            _cycloidal,
            (),
            2.0,
            math.tau,
            "a circle of the lift ÷ 2π, rolled: its heights carried along the slanted line",
        ),
        Motion(
            "polynomial",
            "3-4-5 motion",
            _polynomial,
            (),
            1.875,
            10 / math.sqrt(3),
            "points computed by 10x³ − 15x⁴ + 6x⁵",
        ),
    )
}
"""Every motion. Peak factors follow from the formulas by differentiation (handbook values
agree)."""


def rounded_by(radius: float, wide: float, tall: float) -> Motion | None:
    """Return uniform motion whose ends are arcs of a stated radius on its displacement diagram.

    Parameters
    ----------
    radius : float
    wide, tall : float
        The event on the diagram: its angle along the base, its lift up. In one unit with the
        radius.

    Returns
    -------
    Motion or None
        None where the arcs take more than half of the event each: the radius is too large.

    Notes
    -----
    The arcs stand square above the start and below the end; the straight part touches both,
    crossing between them. It rises at θ = atan2(h − 2R, L) + asin(2R/√(L² + (h − 2R)²)), and begins
    R·sin θ along (closed form)."""
    between = math.hypot(wide, tall - 2 * radius)
    if radius <= 0 or 2 * radius >= between:
        return None
    slope = math.atan2(tall - 2 * radius, wide) + math.asin(2 * radius / between)
    end = radius * math.sin(slope)
    if end > wide / 2 or slope >= math.pi / 2:
        return None
    share, steep = end / wide, math.tan(slope)

    def shape(x: float) -> tuple[float, float, float]:
        if x > 0.5:
            s, v, a = shape(1 - x)
            return 1 - s, v, -a
        if x < share:
            along = x * wide
            down = math.sqrt(radius * radius - along * along)
            return (
                (radius - down) / tall,
                along / down * wide / tall,
                radius**2 / down**3 * wide**2 / tall,
            )
        return 0.5 + (x - 0.5) * steep * wide / tall, steep * wide / tall, 0.0

    greatest = wide**2 / (tall * radius * math.cos(slope) ** 3)
    drawn = "arcs square above the start and below the end, and the straight line that touches both"
    title, breaks, fastest = (
        "uniform velocity with rounded ends",
        (share, 1 - share),
        steep * wide / tall,
    )
    return Motion("rounded", title, shape, breaks, fastest, greatest, drawn, radius)


USUAL = "harmonic"
"""What is meant where no motion is named (common practice, no source)."""
