"""MOV with ProRes 4444 and PCM: large and fine, to be worked on elsewhere; see-through on request."""

from kitecore.render.making.films import Film
from kitecore.render.making.format import formats
from kitecore.render.making.soundtrack import SoundCoding

formats.register("prores")(
    Film(
        label="MOV, to work on",
        help="ProRes 4444 and PCM: large, loses next to nothing",
        suffix="mov",
        mime="video/quicktime",
        container="mov",
        codec="prores_ks",
        options={"profile": "4444", "vendor": "apl0"},
        captions="mov_text",
        cover_in="atoms",
        sound=SoundCoding("pcm_s24le", "s32"),
        pixels="yuv444p10le",
        clear_pixels="yuva444p10le",
        piece_container="mov",
    )
)
