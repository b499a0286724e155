"""Files of stills, opened by Pillow; with the HEIF that phones take photographs in."""

from __future__ import annotations

import struct
from pathlib import Path
from typing import Final

from pi_heif import register_heif_opener
from PIL import Image

register_heif_opener()

DAMAGED: Final = (
    OSError,
    SyntaxError,
    ValueError,
    LookupError,
    ArithmeticError,
    EOFError,
    struct.error,
)
"""What Pillow raises of files that are damaged: its readers count on what a whole one holds."""


def open_still(path: Path) -> Image.Image:
    """The first picture of a file, not decoded yet. Raises what Pillow does."""
    return Image.open(path)
