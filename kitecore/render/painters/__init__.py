"""How each kind of clip becomes a layer. To add a kind: a module here with its painter."""

from __future__ import annotations

from kitecore.document import ClipBase
from kitecore.picture.layer import Layer
from kitecore.registry import import_all
from kitecore.render.painters._base import painters
from kitecore.render.stage import Stage

import_all(__name__)

__all__ = ["paint", "painters"]


def paint(clip: ClipBase, tick: int, stage: Stage) -> Layer:
    """The clip as a layer at ``tick`` (counted from its start)."""
    return painters[clip.kind](clip, tick, stage)
