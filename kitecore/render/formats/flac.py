"""Sound as FLAC."""

from kitecore.render.making.format import formats
from kitecore.render.making.sounds import Sound
from kitecore.render.making.soundtrack import SoundCoding

formats.register("flac")(
    Sound(
        label="Sound, FLAC",
        help="without loss, half as large",
        suffix="flac",
        mime="audio/flac",
        container="flac",
        cover_in="stream",
        gain="tags",
        coding=SoundCoding("flac", "s16", finer=SoundCoding("flac", "s32")),
    )
)
