"""Small projects on made takes, for tests of rendering."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av
import numpy as np
from PIL import Image

from kitecore import edits
from kitecore.document import Canvas, Document, FrameRate, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.media.folder import FindMedia, MediaFolder
from kitecore.media.tests.material import ingested, make_video, make_wav, tone

SIZE = (180, 320)
RAMP_FIRST = 300
"""Level of the first row of `Scene.ramp`."""


class Scene:
    """A document on a 180 × 320 canvas at 30 frames a second, and its takes."""

    def __init__(self, root: Path) -> None:
        self.root = root
        canvas = Canvas(width=SIZE[0], height=SIZE[1])
        self.document: Document = empty_document(canvas, FrameRate())

    @property
    def find(self) -> FindMedia:
        return lambda media: MediaFolder(self.root / media)

    def video(self, name: str, **how: Any) -> None:
        source = make_video(self.root / "x", **{"size": SIZE, **how})
        ingested(self.root, name, source)

    def ramp(self, name: str) -> None:
        """A take of greys in 10 bits without loss: each row one level (of 1024) above the last."""
        width, height = SIZE
        luma = np.repeat(np.arange(RAMP_FIRST, RAMP_FIRST + height)[:, None], width, axis=1)
        planes = np.vstack([luma, np.full((height // 2, width), 512)]).astype(np.uint16)
        self.video(
            name,
            frames=6,
            codec="libx265",
            pixels="yuv420p10le",
            options={"x265-params": "lossless=1:log-level=error"},
            draw=lambda number: av.VideoFrame.from_ndarray(planes, format="yuv420p10le"),
        )

    def sound(self, name: str, seconds: float, frequency: float = 440) -> None:
        ingested(self.root, name, make_wav(self.root / "x", tone(seconds, frequency=frequency)))

    def still(self, name: str, colour: tuple[int, int, int, int], size: tuple[int, int]) -> None:
        Image.new("RGBA", size, colour).save(self.root / "x", "PNG")
        ingested(self.root, name, self.root / "x")

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def place(
        self,
        media: str,
        seconds: float,
        into: float = 0,
        mode: str = "end",
        at: float = 0,
        **more: Any,
    ) -> None:
        """Put a part of a take on the timeline; times in seconds."""
        info = self.find(media).info
        clip = {
            "kind": info.kind,
            "media": media,
            "name": media,
            "length": round(seconds * SECOND),
            **more,
        }
        if info.kind != "still":
            clip |= {"source_in": round(into * SECOND), "source_length": info.length}
        self.do(kind="place", clip=clip, mode=mode, at=round(at * SECOND))
