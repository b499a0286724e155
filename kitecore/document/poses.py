"""Poses of a mouth: few enough to draw, enough to be read from the lips."""

from __future__ import annotations

from typing import Final

POSES: Final[dict[str, str]] = {
    "closed": "Lips together: m, b, p, and pauses",
    "small": "A little open: t, d, n, k, g, r, h, and short vowels",
    "open": "Jaw low: a",
    "wide": "Corners apart: e, i, y",
    "round": "Lips forward: o, u, w",
    "teeth": "Lower lip at the teeth: f, v",
    "tongue": "Tongue seen: l, th",
    "smile": "Teeth together: s, z, sh, ch, j",
}
"""What speech needs, by name: how it looks and when. A mouth may have others beside them."""

REST: Final = "closed"
"""That of pauses."""
