"""A PNG for each frame, in one archive."""

from kitecore.render.making.format import formats
from kitecore.render.making.sequences import PngSequence

formats.register("pngs")(
    PngSequence(
        label="PNG for each frame",
        help="without loss, in one ZIP",
        suffix="zip",
        mime="application/zip",
    )
)
