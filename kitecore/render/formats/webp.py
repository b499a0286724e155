"""One picture as WebP."""

from kitecore.render.making.format import formats
from kitecore.render.making.stills import Still

formats.register("webp")(
    Still(
        label="Still, WebP",
        help="one picture, small",
        suffix="webp",
        mime="image/webp",
        saved_as="WEBP",
        fine={"small": 60, "good": 80, "best": 95},
    )
)
