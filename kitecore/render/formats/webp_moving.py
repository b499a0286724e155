"""WebP that moves: smaller and finer than GIF."""

from kitecore.render.making.format import formats
from kitecore.render.making.moving import MovingWebp

formats.register("webp-moving")(
    MovingWebp(
        label="WebP that moves",
        help="smaller and finer than GIF, mute",
        suffix="webp",
        mime="image/webp",
        container="webp",
        fine={"small": 50, "good": 75, "best": 92},
    )
)
