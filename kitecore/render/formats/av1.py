"""WebM with AV1 of 10 bits and Opus: open, small, slow to make."""

import os

from kitecore.render.formats._base import Format, formats

# The encoder tells its settings on standard error otherwise.
os.environ.setdefault("SVT_LOG", "1")

formats.register("av1")(
    Format(
        label="WebM, 10 bit",
        suffix="webm",
        mime="video/webm",
        container="webm",
        picture_codec="libsvtav1",
        sound_codec="libopus",
        options={"preset": "9"},
        quality={"small": {"crf": "45"}, "good": {"crf": "35"}, "best": {"crf": "22"}},
        sound_bits={"small": 96_000, "good": 128_000, "best": 192_000},
        sound_format="flt",
        pixels="yuv420p10le",
    )
)
