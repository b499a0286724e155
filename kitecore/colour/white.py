"""Whites: where light of a warmth and tint lies, and how to adapt from it to D65."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

Matrix = NDArray[np.float64]
Spot = tuple[float, float]

# Linear BT.709 to CIE XYZ, from its primaries and D65 (SMPTE RP 177).
TO_XYZ: Matrix = np.array(
    [
        [0.4123907992659595, 0.3575843393838780, 0.1804807884018343],
        [0.2126390058715104, 0.7151686787677559, 0.0721923153607337],
        [0.0193308187155918, 0.1191947797946259, 0.9505321522496608],
    ]
)
FROM_XYZ: Matrix = np.asarray(np.linalg.inv(TO_XYZ), np.float64)

BRADFORD: Matrix = np.array(
    [[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]]
)
"""K. M. Lam 1985, as in ICC.1:2010 annex E."""

D65_MIRED = 1e6 / 6504
MOST_WARMTH = 100.0
TINT_STEP = 3e-4
"""Distance in CIE 1960 uv for one step of tint."""


def locus(mired: float) -> Spot:
    """CIE 1960 uv of a black body at a reciprocal temperature in mired.

    M. Krystek, "An algorithm to calculate correlated colour temperature", 1985; 40 to 1000 mired.
    """
    t = 1e6 / mired
    u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (
        1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t
    )
    v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (
        1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t
    )
    return u, v


def white_of(warmth: float, tint: float) -> Spot:
    """CIE 1960 uv of the light that a warmth and tint take for white; D65 at (0, 0).

    A step of ``warmth`` is one mired along the black-body locus towards blue (so that the picture
    gets warmer), a step of ``tint`` goes across it towards green (so that it gets more magenta).
    """
    mired = D65_MIRED - warmth
    (u, v), (u0, v0) = locus(mired), locus(D65_MIRED)
    du, dv = _across(mired)
    u65, v65 = uv_of(TO_XYZ.sum(axis=1))
    return u65 + u - u0 + tint * TINT_STEP * du, v65 + v - v0 + tint * TINT_STEP * dv


def _across(mired: float) -> Spot:
    """Unit vector across the locus, towards green."""
    (u0, v0), (u1, v1) = locus(mired - 0.5), locus(mired + 0.5)
    long = math.hypot(u1 - u0, v1 - v0)
    return -(v1 - v0) / long, (u1 - u0) / long


def uv_of(xyz: NDArray[np.float64]) -> Spot:
    """CIE 1960 uv of XYZ, shape (3,)."""
    x, y, z = (float(one) for one in xyz)
    scale = x + 15 * y + 3 * z
    return 4 * x / scale, 6 * y / scale


def xyz_of(spot: Spot) -> NDArray[np.float64]:
    """XYZ of CIE 1960 uv with Y = 1."""
    u, v = spot
    return np.array([1.5 * u / v, 1.0, (4 - u - 10 * v) / (2 * v)])


def adaptation(warmth: float, tint: float) -> Matrix:
    """3 × 3 matrix on linear BT.709: what the light of `white_of` lit as if D65 had."""
    source = BRADFORD @ xyz_of(white_of(warmth, tint))
    target = BRADFORD @ TO_XYZ.sum(axis=1)
    change = np.linalg.inv(BRADFORD) @ np.diag(target / source) @ BRADFORD
    return FROM_XYZ @ change @ TO_XYZ


def balance_of(linear: NDArray[np.float64]) -> tuple[float, float]:
    """Warmth and tint that make a colour neutral, both within ±100.

    Parameters
    ----------
    linear
        Linear BT.709, shape (3,), not black.
    """
    u, v = uv_of(TO_XYZ @ np.maximum(linear, 1e-4))

    def along(warmth: float) -> float:
        """How far the colour lies ahead of the white of a warmth, along the locus."""
        wu, wv = white_of(warmth, 0)
        du, dv = _across(D65_MIRED - warmth)
        return (u - wu) * dv - (v - wv) * du

    low, high = -MOST_WARMTH, MOST_WARMTH
    rises = along(high) > along(low)
    for _ in range(40):
        middle = (low + high) / 2
        if (along(middle) < 0) == rises:
            low = middle
        else:
            high = middle
    warmth = (low + high) / 2
    wu, wv = white_of(warmth, 0)
    du, dv = _across(D65_MIRED - warmth)
    tint = ((u - wu) * du + (v - wv) * dv) / TINT_STEP
    return warmth, min(max(tint, -100.0), 100.0)
