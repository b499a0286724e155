"""MP4 with H.264 and AAC: plays everywhere."""

from kitecore.render.formats._base import Format, formats

formats.register("mp4")(
    Format(
        label="MP4",
        suffix="mp4",
        mime="video/mp4",
        container="mp4",
        picture_codec="libx264",
        sound_codec="aac",
        options={"preset": "veryfast", "profile": "high"},
        quality={"small": {"crf": "26"}, "good": {"crf": "21"}, "best": {"crf": "16"}},
        sound_bits={"small": 128_000, "good": 192_000, "best": 256_000},
        sound_format="fltp",
        container_options={"movflags": "faststart"},
    )
)
