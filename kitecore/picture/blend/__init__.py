"""Blend modes. To add one: its formula here, and its name in `kitecore.document.blends`.

Each is a function ``draw(below, above, level)``: both premultiplied RGBA of one shape, ``level``
the opacity 0..255 of what comes above; ``below`` is changed in place.
"""

from kitecore.picture.blend._base import blends
from kitecore.registry import import_all

import_all(__name__)

__all__ = ["blends"]
