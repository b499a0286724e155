"""What a film is drawn on."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from kitecore.document.properties import Hex
from kitecore.model import Model

Side = Annotated[int, Field(ge=16, le=4096, multiple_of=2)]


class Canvas(Model):
    """Size in pixels (even, up to 4096 on a side) and the colour behind everything."""

    width: Side = 1080
    height: Side = 1920
    colour: Hex = "#000000"
