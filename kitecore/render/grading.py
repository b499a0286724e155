"""A clip's grade on its picture: one table for all that is the same everywhere, then zones."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.document import Grade, Pictured, Zone
from kitecore.document.grade import grade_of
from kitecore.media.pixels import rgba_of
from kitecore.media.planes import Halved
from kitecore.motion import still_at
from kitecore.motion.plain import number
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import mixed_by
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage

Step = Grade | Zone
"""Something to be done in one pass: colours alike everywhere, or within masks."""


Deep = NDArray[np.uint16]
Ungraded = Rgba | Deep | Halved
"""Premultiplied RGBA of 8 bits; of an opaque picture also RGB of 16 bits, or planes."""


@dataclass(frozen=True)
class Plan:
    """What a grade comes to. ``passes`` are None if they change over time."""

    changes: bool
    passes: tuple[Step, ...] | None


def plan_of(grade: Grade, sources: Sources) -> Plan:
    """The plan of a grade as it stands in a document, made once."""

    def make() -> Plan:
        keyed = still_at(grade, 0) is not grade
        return Plan(changes(grade), None if keyed else tuple(steps(grade)))

    found: Plan = sources.plans.get(grade, make)
    return found


def passes_at(grade: Grade, tick: int, sources: Sources) -> tuple[Step, ...]:
    """The passes of a grade at a tick counted from the start of its clip."""
    known = plan_of(grade, sources).passes
    return tuple(steps(still_at(grade, tick))) if known is None else known


def graded_picture(
    pixels: Ungraded, clip: Pictured, tick: int, stage: Stage, aspect: float
) -> Rgba:
    """The picture of a clip after its grade at a tick counted from its start.

    Parameters
    ----------
    pixels
        What is no RGBA of 8 bits is brought there by the first pass.
    aspect
        Width of the picture for a height of 1.
    """
    if clip.grade is None:
        assert not isinstance(pixels, Halved) and pixels.dtype == np.uint8
        return pixels  # type: ignore[return-value]
    if stage.matte:
        passes = tuple(steps(still_at(clip.grade, tick), stage.matte))
    else:
        passes = passes_at(clip.grade, tick, stage.sources)
    first = pixels
    for step in passes:
        if isinstance(step, Grade):
            pixels = _everywhere(pixels, step, stage)
            continue
        seen = _before_grading(first, clip.grade, tick, stage) if step.original else pixels
        mask = zone_mask(seen, step, stage, aspect)  # type: ignore[arg-type]
        if step.id == stage.matte:
            return _as_grey(mask, pixels)  # type: ignore[arg-type]
        pixels = _within(pixels, step, mask, stage)  # type: ignore[arg-type]
    return pixels  # type: ignore[return-value]


def steps(grade: Grade, matte: str = "") -> Iterator[Step]:
    """The passes of a grade without keys, in order.

    Zones without masks go into one table with what is before them.
    """
    if not grade.on:
        yield Grade()
        return
    together, alone = grade.model_copy(update={"zones": ()}), False
    for zone in grade.zones:
        if not zone.on:
            continue
        # Once a zone stood alone, a table no longer begins with the picture before grading.
        if zone.masks or zone.id == matte or (alone and zone.original):
            alone = True
            yield together
            yield zone
            together = Grade()
        else:
            together = together.model_copy(update={"zones": (*together.zones, zone)})
    yield together


def changes(grade: Grade | None) -> bool:
    """Whether a grade changes anything at all."""
    if grade is None or not grade.on:
        return False
    return bool(grade.zones) or any(stage.works for _, stage in grade.stages)


def zone_mask(pixels: Rgba, zone: Zone, stage: Stage, aspect: float) -> Coverage:
    """0..255 for each pixel: how far a zone means it, its amount not counted."""
    height, width = pixels.shape[:2]
    mask = stage.sources.coverage(zone.masks, width, height, aspect)
    if zone.brightness or zone.hues:
        matte = stage.sources.tables.matte(zone).over(_opaque(pixels))[..., 0]
        mask = (mask.astype(np.uint16) * matte // 255).astype(np.uint8)
    return 255 - mask if zone.invert else mask


def zone_share(zone: Zone) -> float:
    """How much of a zone's grade is wanted, 0..1."""
    return min(max(number(zone.amount) / 100, 0.0), 1.0)


def _everywhere(pixels: Ungraded, grade: Grade, stage: Stage) -> Rgba:
    if isinstance(pixels, Halved):
        if not changes(grade):
            return rgba_of(pixels)
        return stage.sources.tables.to_rgba(grade).over(pixels.planes, pixels.size)
    if pixels.dtype == np.uint16:
        deep: Deep = pixels  # type: ignore[assignment]
        return stage.sources.tables.of(grade).over_deep(deep, stage.sources.rounding)
    if not changes(grade):
        return pixels  # type: ignore[return-value]
    return stage.sources.tables.of(grade).over(pixels)  # type: ignore[arg-type]


def _before_grading(pixels: Ungraded, grade: Grade, tick: int, stage: Stage) -> Rgba:
    """The picture as it came, with no more done to it than what its camera's coding asks for."""
    return _everywhere(pixels, Grade(input=still_at(grade.input, tick)), stage)


def _within(pixels: Rgba, zone: Zone, mask: Coverage, stage: Stage) -> Rgba:
    inside = grade_of(zone.adjust)
    if not changes(inside):
        return pixels
    if (share := zone_share(zone)) < 1:
        mask = np.rint(mask * np.float32(share)).astype(np.uint8)
    return mixed_by(pixels, _everywhere(pixels, inside, stage), mask)


def _opaque(pixels: Rgba) -> Rgba:
    solid = pixels.copy()
    solid[..., 3] = 255
    return solid


def _as_grey(mask: Coverage, pixels: Rgba) -> Rgba:
    """A mask as a picture, as opaque as the one it belongs to."""
    grey = (mask.astype(np.uint16) * pixels[..., 3] // 255).astype(np.uint8)
    return np.dstack([grey, grey, grey, pixels[..., 3]])
