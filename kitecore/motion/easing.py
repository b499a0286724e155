"""Easing functions after CSS Easing Functions Level 1: progress of time to progress of value."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.document.ease import Bezier, Ease, Hold, Steady
from kitecore.registry import Registry

Easing = Callable[[Any, float], float]
easings: Registry[Easing] = Registry("easing")


def eased(ease: Ease, progress: float) -> float:
    """Share of the way done (may overshoot) at a share of the time, 0..1."""
    return easings[ease.kind](ease, progress)


@easings.register("hold")
def hold(ease: Hold, progress: float) -> float:
    return 1.0 if progress >= 1 else 0.0


@easings.register("steady")
def steady(ease: Steady, progress: float) -> float:
    return progress


def _axis(first: float, second: float, t: float) -> float:
    """One coordinate of a cubic Bézier from 0 to 1 with two inner control values."""
    return 3 * (1 - t) ** 2 * t * first + 3 * (1 - t) * t * t * second + t**3


@easings.register("bezier")
def bezier(ease: Bezier, progress: float) -> float:
    """``cubic-bezier()``: x is monotonic, so bisection always finds the parameter."""
    if progress <= 0 or progress >= 1:
        return min(max(progress, 0.0), 1.0)
    low, high = 0.0, 1.0
    for _ in range(48):
        middle = (low + high) / 2
        if _axis(ease.x1, ease.x2, middle) < progress:
            low = middle
        else:
            high = middle
    return _axis(ease.y1, ease.y2, (low + high) / 2)
