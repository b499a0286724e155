"""Names of the blend modes (their formulas are in `kitecore.picture.blend`)."""

from typing import Final

BLENDS: Final = ("normal", "multiply", "screen")
