"""Modes of one line each (W3C Compositing and Blending Level 1, section 10.1; subtract is ours)."""

from __future__ import annotations

import numpy as np

from kitecore.picture.blend._base import Channel, blends, separable


def multiply(below: Channel, above: Channel) -> Channel:
    return np.asarray(below * above)


def screen(below: Channel, above: Channel) -> Channel:
    return np.asarray(below + above - below * above)


def hard_light(below: Channel, above: Channel) -> Channel:
    dark, light = multiply(below, 2 * above), screen(below, 2 * above - 1)
    return np.asarray(np.where(above <= 0.5, dark, light))


def overlay(below: Channel, above: Channel) -> Channel:
    return hard_light(above, below)


def darken(below: Channel, above: Channel) -> Channel:
    return np.asarray(np.minimum(below, above))


def lighten(below: Channel, above: Channel) -> Channel:
    return np.asarray(np.maximum(below, above))


def soft_light(below: Channel, above: Channel) -> Channel:
    root = np.where(below <= 0.25, ((16 * below - 12) * below + 4) * below, np.sqrt(below))
    darker = below - (1 - 2 * above) * below * (1 - below)
    return np.asarray(np.where(above <= 0.5, darker, below + (2 * above - 1) * (root - below)))


def difference(below: Channel, above: Channel) -> Channel:
    return np.asarray(np.abs(below - above))


def exclusion(below: Channel, above: Channel) -> Channel:
    return np.asarray(below + above - 2 * below * above)


def subtract(below: Channel, above: Channel) -> Channel:
    return np.asarray(np.maximum(below - above, 0))


for _formula in (
    multiply,
    screen,
    overlay,
    darken,
    lighten,
    hard_light,
    soft_light,
    difference,
    exclusion,
    subtract,
):
    blends.register(_formula.__name__)(separable(_formula))
