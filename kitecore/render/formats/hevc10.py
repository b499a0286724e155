"""MP4 with HEVC of 10 bits: fine gradients, for players of the last years."""

from kitecore.render.making.films import Film
from kitecore.render.making.format import formats
from kitecore.render.making.soundtrack import SoundCoding

formats.register("hevc10")(
    Film(
        label="MP4, 10 bit",
        help="HEVC and AAC: fine gradients",
        suffix="mp4",
        mime="video/mp4",
        container="mp4",
        codec="libx265",
        options={"preset": "veryfast", "x265-params": "log-level=error"},
        crf={"small": 28, "good": 22, "best": 17},
        coarsest=45,
        captions="mov_text",
        cover_in="stream",
        gain="atoms",
        sound=SoundCoding("aac", "fltp", {"small": 128_000, "good": 192_000, "best": 256_000}),
        pixels="yuv420p10le",
        tag="hvc1",
        container_options={"movflags": "faststart"},
    )
)
