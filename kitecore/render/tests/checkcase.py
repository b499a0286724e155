"""Films that are checked before they go out."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import numpy as np
from PIL import Image
from skimage.data import astronaut

from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import ingested
from kitecore.render.checking import Film, Finding, lines_of
from kitecore.render.checking.pictures import (
    joined,
    measure,
    packed,
    pieces_of,
    unpacked,
)
from kitecore.render.checking.sounds import sound_facts
from kitecore.render.destinations import DESTINATIONS
from kitecore.render.levels import measured_stretch, stretches_of
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene


def plain(level: int) -> av.VideoFrame:
    pixels = np.full((SIZE[1], SIZE[0], 3), level, np.uint8)
    pixels[:40, :40] = 90
    return av.VideoFrame.from_ndarray(pixels, format="rgb24")


class CheckCase(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.scene = Scene(self.root)

    def found(self, destination: str = "upright", **settings: Any) -> dict[str, list[Finding]]:
        place = next(one for one in DESTINATIONS if one.id == destination)
        wanted = place.settings.model_copy(update=settings)
        place = place.model_copy(update={"settings": wanted})
        document = self.scene.document
        sources = Sources(self.scene.find)
        self.addCleanup(sources.close)
        parts = [measure(document, numbers, sources) for numbers in pieces_of(document)]
        heard = [measured_stretch(document, at, sources) for at in range(stretches_of(document))]
        film = Film(
            document,
            wanted.work(document),
            place,
            joined([unpacked(packed(part)) for part in parts]),
            sound_facts(heard),
            sources,
        )
        return {line.check: list(line.findings) for line in lines_of(film)}

    def where(self, findings: list[Finding]) -> list[tuple[float, float]]:
        return [
            (round((one.at or 0) / SECOND, 2), round((one.until or 0) / SECOND, 2))
            for one in findings
        ]

    def text(self, text: str, seconds: float, at: float = 0, **more: Any) -> None:
        clip = {"kind": "text", "text": text, "length": round(seconds * SECOND), **more}
        self.scene.do(kind="place", clip=clip, mode="above", at=round(at * SECOND))

    def photograph(self, seconds: float, **place: Any) -> None:
        if not (self.root / "person").exists():
            ingested(self.root, "person", self._file())
        self.scene.place("person", seconds, place={"fit": "own", **place})

    def _file(self) -> Path:
        path = self.root / "person.png"
        Image.fromarray(astronaut()[:300, 80:380]).resize((160, 160)).save(path)
        return path
