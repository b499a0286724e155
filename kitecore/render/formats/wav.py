"""Sound as WAV."""

from kitecore.render.making.format import formats
from kitecore.render.making.sounds import Sound
from kitecore.render.making.soundtrack import SoundCoding

formats.register("wav")(
    Sound(
        label="Sound, WAV",
        help="without loss; 24 bits at the best quality",
        suffix="wav",
        mime="audio/wav",
        container="wav",
        coding=SoundCoding("pcm_s16le", "s16", finer=SoundCoding("pcm_s24le", "s32")),
    )
)
