"""WebM with AV1 of 10 bits and Opus: open, small, slow to make."""

import os

from kitecore.render.making.films import Film
from kitecore.render.making.format import formats
from kitecore.render.making.soundtrack import SoundCoding

# The encoder tells its settings on standard error otherwise.
os.environ.setdefault("SVT_LOG", "1")

formats.register("av1")(
    Film(
        label="WebM, 10 bit",
        help="AV1 and Opus: fine and open",
        suffix="webm",
        mime="video/webm",
        container="webm",
        codec="libsvtav1",
        options={"preset": "9"},
        crf={"small": 45, "good": 35, "best": 22},
        coarsest=60,
        captions="webvtt",
        gain="tags",
        sound=SoundCoding("libopus", "flt", {"small": 96_000, "good": 128_000, "best": 192_000}),
        pixels="yuv420p10le",
    )
)
