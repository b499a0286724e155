"""Files of stills, opened by Pillow; with the HEIF that phones take photographs in."""

from __future__ import annotations

from pathlib import Path

from pi_heif import register_heif_opener
from PIL import Image

register_heif_opener()


def open_still(path: Path) -> Image.Image:
    """The first picture of a file, not decoded yet. Raises what Pillow does."""
    return Image.open(path)
