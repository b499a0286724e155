"""Make the looks that ship with the application: ``python tools/make_looks.py``."""

from __future__ import annotations

import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from kitecore.colour.chain import graded
from kitecore.colour.cube import Cube
from kitecore.colour.cubefile import write_cube
from kitecore.colour.lattice import lattice
from kitecore.colour.looks import shipped
from kitecore.document import Adjustments, Grade, Zone
from kitecore.document.grade import (
    Colour,
    Contrast,
    Curves,
    HueRange,
    Levels,
    Wheel,
    Wheels,
)

FOLDER = Path(__file__).resolve().parent.parent / "kitecore" / "colour" / "looks"
SIZE = 17

_SKIN = HueRange(middle=118, width=26, softness=22, weakest=3)

LOOKS: dict[str, tuple[str, Grade]] = {
    "dusk-print": (
        "Dusk print",
        Grade(
            levels=Levels(lowest=4, highest=97),
            wheels=Wheels(
                lift=Wheel(push=(0.16, 0.06), level=2),
                gamma=Wheel(push=(-0.02, 0.1)),
                gain=Wheel(push=(-0.1, 0.05), level=-3),
            ),
            contrast=Contrast(contrast=12, shadows=-10, highlights=-14),
            colour=Colour(saturation=-8, vibrance=18),
        ),
    ),
    "two-papers": (
        "Two papers",
        Grade(
            wheels=Wheels(
                lift=Wheel(push=(0.13, -0.11), level=-1),
                gamma=Wheel(push=(-0.02, 0.01)),
                gain=Wheel(push=(-0.11, 0.075), level=-4),
            ),
            contrast=Contrast(contrast=12, highlights=-8),
            colour=Colour(saturation=6),
            zones=(
                # Skin, and paper of its tone, is led half the way back.
                Zone(
                    id="skin",
                    hues=_SKIN,
                    amount=70,
                    adjust=Adjustments(
                        wheels=Wheels(
                            gamma=Wheel(push=(0.03, -0.02)), gain=Wheel(push=(0.06, -0.05))
                        )
                    ),
                ),
            ),
        ),
    ),
    "lamp-oil": (
        "Lamp oil",
        Grade(
            wheels=Wheels(gamma=Wheel(push=(-0.1, 0.06)), gain=Wheel(push=(-0.15, 0.06), level=-5)),
            contrast=Contrast(contrast=8, blacks=-12, shadows=12),
            curves=Curves(hue_to_saturation=((0.08, 0.34), (0.34, 0.56), (0.62, 0.4))),
        ),
    ),
    "morning-ash": (
        "Morning ash",
        Grade(
            levels=Levels(lowest=7, highest=96),
            wheels=Wheels(lift=Wheel(push=(0.08, -0.02)), gain=Wheel(push=(0.05, -0.03))),
            contrast=Contrast(contrast=-14, whites=10),
            colour=Colour(saturation=-38, vibrance=20),
        ),
    ),
    "tin-sky": (
        "Tin sky",
        Grade(
            wheels=Wheels(gamma=Wheel(push=(0.1, -0.12)), lift=Wheel(push=(0.06, -0.04), level=-2)),
            contrast=Contrast(contrast=26, highlights=-18),
            curves=Curves(hue_to_saturation=((0.0, 0.46), (0.34, 0.36), (0.68, 0.5))),
            colour=Colour(saturation=-14),
        ),
    ),
    "blueprint": (
        "Blueprint",
        Grade(
            levels=Levels(lowest=3, highest=98),
            contrast=Contrast(contrast=10),
            colour=Colour(saturation=-100),
            zones=(
                Zone(
                    id="ink",
                    adjust=Adjustments(
                        wheels=Wheels(
                            lift=Wheel(push=(0.42, -0.12)), gamma=Wheel(push=(0.2, -0.08))
                        )
                    ),
                ),
            ),
        ),
    ),
}
"""Title and recipe by name."""


def look_of(title: str, recipe: Grade) -> Cube:
    """A recipe as a table, cut off at black and white."""
    values = graded(lattice(SIZE), recipe, shipped).clip(0, 1)
    return Cube(values.reshape(SIZE, SIZE, SIZE, 3), title=title)


def main() -> None:
    for name, (title, recipe) in LOOKS.items():
        (FOLDER / f"{name}.cube").write_text(write_cube(look_of(title, recipe)))
        print(name)


if __name__ == "__main__":
    main()
