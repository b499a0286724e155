"""A grade as what it is: one stage after the other. Exact, and slow; tables are made from this."""

from __future__ import annotations

from kitecore.colour.cube import FindLook
from kitecore.colour.qualify import matte_of
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages import stage_rules
from kitecore.colour.transfer import coded_of, linear_of
from kitecore.document import Adjustments, Grade, Zone
from kitecore.motion.plain import number


def graded(rgb: Rgb, grade: Grade, find: FindLook) -> Rgb:
    """Colours after a grade and those of its zones that no mask limits.

    Parameters
    ----------
    rgb
        See `kitecore.colour.rgb.Rgb`; float64 for the truth, float32 for tables.
    grade
        Without keys (see `motion.still_at`).

    Returns
    -------
    Same shape and precision, not clipped.
    """
    if not grade.on:
        return rgb
    original = rgb
    if grade.input.works and any(zone.original for zone in grade.zones):
        original = adjusted(rgb, Grade(input=grade.input), find)
    rgb = adjusted(rgb, grade, find)
    for zone in grade.zones:
        if zone.on and not zone.masks:
            rgb = zoned(rgb, zone, find, original)
    return rgb


def adjusted(rgb: Rgb, adjustments: Adjustments, find: FindLook, before: str = "") -> Rgb:
    """Colours after all stages, or only after those before the one named."""
    linear = False
    for name, stage in adjustments.stages:
        if name == before:
            break
        if stage.works:
            rule = stage_rules[name]
            if rule.linear != linear:
                rgb, linear = (linear_of if rule.linear else coded_of)(rgb), rule.linear
            rgb = rule.apply(rgb, stage, find)
    return coded_of(rgb) if linear else rgb


def zoned(rgb: Rgb, zone: Zone, find: FindLook, original: Rgb) -> Rgb:
    """Colours after a zone, where its ranges (not its masks) let it through.

    ``original``: the same colours before all grading.
    """
    amount = number(zone.amount) / 100
    matte = matte_of(original if zone.original else rgb, zone)
    share = (1 - matte if zone.invert else matte) * amount
    return rgb + (adjusted(rgb, zone.adjust, find) - rgb) * share[..., None]
