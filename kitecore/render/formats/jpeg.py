"""One picture as JPEG."""

from kitecore.render.making.format import formats
from kitecore.render.making.stills import Still

formats.register("jpeg")(
    Still(
        label="Still, JPEG",
        help="one picture, for a cover",
        suffix="jpg",
        mime="image/jpeg",
        saved_as="JPEG",
        clears=False,
        fine={"small": 75, "good": 88, "best": 95},
    )
)
