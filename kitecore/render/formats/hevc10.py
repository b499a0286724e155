"""MP4 with HEVC of 10 bits: fine gradients, for players of the last years."""

from kitecore.render.formats._base import Format, formats

formats.register("hevc10")(
    Format(
        label="MP4, 10 bit",
        suffix="mp4",
        mime="video/mp4",
        container="mp4",
        picture_codec="libx265",
        sound_codec="aac",
        options={"preset": "veryfast", "x265-params": "log-level=error"},
        quality={"small": {"crf": "28"}, "good": {"crf": "22"}, "best": {"crf": "17"}},
        sound_bits={"small": 128_000, "good": 192_000, "best": 256_000},
        sound_format="fltp",
        pixels="yuv420p10le",
        tag="hvc1",
        container_options={"movflags": "faststart"},
    )
)
