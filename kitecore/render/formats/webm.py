"""WebM with VP9 and Opus: free of patents, and see-through on request."""

from kitecore.render.making.films import Film
from kitecore.render.making.format import formats
from kitecore.render.making.soundtrack import SoundCoding

formats.register("webm")(
    Film(
        label="WebM",
        help="VP9 and Opus: open, slower to make",
        suffix="webm",
        mime="video/webm",
        container="webm",
        codec="libvpx-vp9",
        options={"deadline": "good", "cpu-used": "5", "row-mt": "1", "b": "0"},
        crf={"small": 40, "good": 32, "best": 22},
        coarsest=60,
        captions="webvtt",
        gain="tags",
        sound=SoundCoding("libopus", "flt", {"small": 96_000, "good": 128_000, "best": 192_000}),
        clear_pixels="yuva420p",
        piece_container="webm",
    )
)
