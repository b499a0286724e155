"""One picture of a film as a file."""

from __future__ import annotations

import io
from dataclasses import dataclass, field
from typing import Any

from PIL import Image

from kitecore.media.whole import whole_file
from kitecore.picture.layer import Rgba
from kitecore.render.making.drawing import picture
from kitecore.render.making.format import Format, Joining
from kitecore.render.making.work import Quality, Work


@dataclass(frozen=True, kw_only=True)
class Still(Format):
    """The first frame of a range. ``fine`` is Pillow's quality, if there is any."""

    kind = "still"
    saved_as: str
    clears: bool = True
    fine: dict[Quality, int] = field(default_factory=dict)

    @property
    def can_clear(self) -> bool:
        return self.clears

    def join(self, work: Work, to: Joining) -> None:
        rate = work.document.rate.exact
        tick = rate.start_of(work.own_number(work.numbers.start))
        options: dict[str, Any] = {"quality": self.fine[work.quality]} if self.fine else {}
        with whole_file(to.path) as path:
            _image(picture(work, tick, to.sources), work.clear).save(path, self.saved_as, **options)
        to.progress(1.0)


def as_png(pixels: Rgba, clear: bool) -> bytes:
    """Without loss, its alpha with it if it is ``clear``."""
    buffer = io.BytesIO()
    _image(pixels, clear).save(buffer, "PNG", compress_level=3)
    return buffer.getvalue()


def _image(pixels: Rgba, clear: bool) -> Image.Image:
    return Image.fromarray(pixels if clear else pixels[..., :3])
