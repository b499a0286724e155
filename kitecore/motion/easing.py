"""Easing functions: share of the time that is over to share of the way that is done.

Steady, hold, Bézier and steps after CSS Easing Functions Level 1; springs as damped oscillators;
bounces by segments of parabolas.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from kitecore.document.ease import Bezier, Bounce, Ease, Hold, Reversible, Spring, Steady, Steps
from kitecore.registry import Registry

Easing = Callable[[Any, float], float]
easings: Registry[Easing] = Registry("easing")


def eased(ease: Ease, progress: float) -> float:
    """Share of the way done (may overshoot) at a share of the time, 0..1."""
    if isinstance(ease, Reversible) and ease.backwards:
        return 1 - easings[ease.kind](ease, 1 - progress)
    return easings[ease.kind](ease, progress)


@easings.register("hold")
def hold(ease: Hold, progress: float) -> float:
    return 1.0 if progress >= 1 else 0.0


@easings.register("steady")
def steady(ease: Steady, progress: float) -> float:
    return progress


def _axis(first: float, second: float, t: float) -> float:
    """One coordinate of a cubic Bézier from 0 to 1 with two inner control values."""
    s = 1 - t
    return (3 * s * first + 3 * t * second) * s * t + t * t * t


_NEAR = 1e-12


@easings.register("bezier")
def bezier(ease: Bezier, progress: float) -> float:
    """``cubic-bezier()``: x is monotonic, so the parameter is between bounds that close in; Newton's
    steps are taken where they stay within them.
    """
    if progress <= 0 or progress >= 1:
        return min(max(progress, 0.0), 1.0)
    x1, x2 = ease.x1, ease.x2
    low, high, t = 0.0, 1.0, progress
    for _ in range(48):
        off = _axis(x1, x2, t) - progress
        if abs(off) < _NEAR:
            break
        if off < 0:
            low = t
        else:
            high = t
        s = 1 - t
        slope = 3 * (s * s * x1 + 2 * s * t * (x2 - x1) + t * t * (1 - x2))
        t = t - off / slope if slope > 1e-9 else low
        if not low < t < high:
            t = (low + high) / 2
    return _axis(ease.y1, ease.y2, t)


@easings.register("steps")
def steps(ease: Steps, progress: float) -> float:
    """``steps(count, end)``; a hair before a step counts as on it.

    Backwards it is ``steps(count, start)``, except that a jump shows from the next moment on: so a
    row of frames played backwards is the same row.
    """
    return math.floor(progress * ease.count + 1e-9) / ease.count


@easings.register("bounce")
def bounce(ease: Bounce, progress: float) -> float:
    """A fall of height 1, then springs of heights ``kept``, ``kept``², …, under one gravity.

    A spring of height h lasts 2 √h times as long as the fall; all together last 1.
    """
    if progress >= 1:
        return 1.0
    heights = [ease.kept**number for number in range(1, ease.count + 1)]
    fall = 1 / (1 + 2 * sum(math.sqrt(height) for height in heights))
    if progress <= fall:
        return (progress / fall) ** 2
    begin = fall
    for height in heights:
        half = fall * math.sqrt(height)
        if progress <= begin + 2 * half:
            return 1 - height + (progress - begin - half) ** 2 / fall**2
        begin += 2 * half
    return 1.0


@easings.register("spring")
def spring(ease: Spring, progress: float) -> float:
    """x'' = k (1 - x) - c x' from rest at 0; what is left at the end is taken out evenly, so that
    it arrives.
    """
    return _sprung(ease, progress) + progress * (1 - _sprung(ease, 1.0))


def _sprung(ease: Spring, time: float) -> float:
    rate, slowing = math.sqrt(ease.stiffness), ease.damping / 2
    inside = ease.stiffness - slowing * slowing
    fading = math.exp(-slowing * time)
    if abs(inside) < 1e-9 * ease.stiffness:
        return 1 - math.exp(-rate * time) * (1 + rate * time)
    if inside > 0:
        turns = math.sqrt(inside)
        return 1 - fading * (math.cos(turns * time) + slowing / turns * math.sin(turns * time))
    spread = math.sqrt(-inside)
    fast, slow = slowing + spread, slowing - spread
    return 1 - (fast * math.exp(-slow * time) - slow * math.exp(-fast * time)) / (2 * spread)
