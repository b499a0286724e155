"""Blend modes. To add one: its formula here, and its name in `kitecore.document.blends`.

Each is a function ``draw(below, above, level, corner=(0, 0))``: both premultiplied RGBA; ``level``
is the opacity 0..255 of what comes above; ``corner`` the pixel of ``below``, across and down, on
which the first one of ``above`` lies, which must not reach beyond it. ``below`` is changed in place.
"""

from kitecore.picture.blend._base import Draw, blends, over_255, pair_over_255
from kitecore.registry import import_all

import_all(__name__)

__all__ = ["Draw", "blends", "over_255", "pair_over_255"]
