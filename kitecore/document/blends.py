"""Names of the blend modes (their formulas are in `kitecore.picture.blend`)."""

from typing import Final

BLENDS: Final = (
    "normal",
    "multiply",
    "screen",
    "overlay",
    "darken",
    "lighten",
    "colour_dodge",
    "colour_burn",
    "hard_light",
    "soft_light",
    "difference",
    "exclusion",
    "hue",
    "saturation",
    "colour",
    "luminosity",
    "add",
    "subtract",
    "holdout_luma",
    "holdout_luma_inverted",
    "holdout_alpha",
    "holdout_alpha_inverted",
)

HOLDOUTS: Final = frozenset(name for name in BLENDS if name.startswith("holdout"))
"""Modes that cut a hole in what lies below, and are not seen themselves."""
