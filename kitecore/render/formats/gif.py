"""GIF: moves anywhere, in few colours."""

from kitecore.render.making.format import formats
from kitecore.render.making.moving import Gif

formats.register("gif")(
    Gif(
        label="GIF",
        help="moves anywhere, in few colours, mute",
        suffix="gif",
        mime="image/gif",
        container="gif",
        colours={"small": 64, "good": 256, "best": 256},
        dither={
            "small": "bayer:bayer_scale=4",
            "good": "bayer:bayer_scale=2",
            "best": "sierra2_4a",
        },
    )
)
