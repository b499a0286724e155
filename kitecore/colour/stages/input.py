from __future__ import annotations

from kitecore.colour.cube import FindLook
from kitecore.colour.inputs import transforms
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Input


@stage("input")
def input_transform(rgb: Rgb, settings: Input, find: FindLook) -> Rgb:
    """From a camera's log to the screen."""
    return transforms[settings.transform].apply(rgb) if settings.transform else rgb
