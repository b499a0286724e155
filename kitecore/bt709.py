"""The numbers of Rec. ITU-R BT.709-6 that luma and colour difference stand on."""

from __future__ import annotations

from typing import Final

KR: Final = 0.2126
KB: Final = 0.0722
KG: Final = 1 - KR - KB
"""Weights of red, blue and green in luma (3.2)."""

CB_SPAN: Final = 2 * (1 - KB)
CR_SPAN: Final = 2 * (1 - KR)
"""What B - Y and R - Y are divided by, so that Cb and Cr go from -0.5 to 0.5 (3.3)."""
