"""WebM with VP9 and Opus: free of patents."""

from kitecore.render.formats._base import Format, formats

formats.register("webm")(
    Format(
        label="WebM",
        suffix="webm",
        mime="video/webm",
        container="webm",
        picture_codec="libvpx-vp9",
        sound_codec="libopus",
        options={"deadline": "good", "cpu-used": "5", "row-mt": "1", "b": "0"},
        quality={"small": {"crf": "40"}, "good": {"crf": "32"}, "best": {"crf": "22"}},
        sound_bits={"small": 96_000, "good": 128_000, "best": 192_000},
        sound_format="flt",
    )
)
