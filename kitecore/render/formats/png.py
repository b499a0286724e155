"""One picture as PNG."""

from kitecore.render.making.format import formats
from kitecore.render.making.stills import Still

formats.register("png")(
    Still(
        label="Still, PNG",
        help="one picture without loss",
        suffix="png",
        mime="image/png",
        saved_as="PNG",
    )
)
