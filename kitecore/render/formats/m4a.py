"""Sound as M4A, with AAC."""

from kitecore.render.making.format import formats
from kitecore.render.making.sounds import Sound
from kitecore.render.making.soundtrack import SoundCoding

formats.register("m4a")(
    Sound(
        label="Sound, M4A",
        help="AAC: small and good",
        suffix="m4a",
        mime="audio/mp4",
        container="ipod",
        cover_in="atoms",
        gain="atoms",
        coding=SoundCoding("aac", "fltp", {"small": 128_000, "good": 192_000, "best": 256_000}),
    )
)
