"""MP4 with H.264 and AAC: plays everywhere."""

from kitecore.render.making.films import Film
from kitecore.render.making.format import formats
from kitecore.render.making.soundtrack import SoundCoding

formats.register("mp4")(
    Film(
        label="MP4",
        help="H.264 and AAC: plays anywhere",
        suffix="mp4",
        mime="video/mp4",
        container="mp4",
        codec="libx264",
        options={"preset": "veryfast", "profile": "high"},
        crf={"small": 26, "good": 21, "best": 16},
        coarsest=45,
        captions="mov_text",
        cover_in="stream",
        gain="atoms",
        sound=SoundCoding("aac", "fltp", {"small": 128_000, "good": 192_000, "best": 256_000}),
        container_options={"movflags": "faststart"},
    )
)
