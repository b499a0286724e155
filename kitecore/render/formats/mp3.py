"""Sound as MP3."""

from kitecore.render.making.format import formats
from kitecore.render.making.sounds import Sound
from kitecore.render.making.soundtrack import SoundCoding

formats.register("mp3")(
    Sound(
        label="Sound, MP3",
        help="plays anywhere",
        suffix="mp3",
        mime="audio/mpeg",
        container="mp3",
        cover_in="stream",
        gain="tags",
        coding=SoundCoding(
            "libmp3lame", "fltp", {"small": 128_000, "good": 192_000, "best": 320_000}
        ),
    )
)
