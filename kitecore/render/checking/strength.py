"""Covers that have become too weak: by hand, or since what they cover is nearer than it was."""

from collections.abc import Iterator
from typing import Any, Final

import numpy as np

from kitecore.document import AdjustmentClip, Pictured, SolidClip
from kitecore.document.covers import STRENGTHS
from kitecore.document.effects import EffectBase
from kitecore.document.fills import PlainFill
from kitecore.motion import still_at
from kitecore.motion.plain import number as plain
from kitecore.motion.posing import opacity_at
from kitecore.render.checking._base import Check, Film, Finding, checks, clock, runs
from kitecore.render.checking.covers import Covering, coverings

_ENOUGH: Final = 0.8
"""Of the strength that a fresh cover has."""
_WHOLE: Final = 0.999
"""Opacity, or share of an effect, from which on nothing shines through."""


def _strength(film: Film) -> Iterator[Finding]:
    for one in coverings(film):
        if _hides(one):
            yield from _weak(film, one)


def _hides(one: Covering) -> bool:
    """Whether it is there to hide something: light or a grade may go along with a thing, too."""
    cover = one.cover.clip
    if isinstance(cover, AdjustmentClip):
        return any(effect.kind in STRENGTHS for effect in cover.effects)
    return one.tracker.face


def _weak(film: Film, one: Covering) -> Iterator[Finding]:
    frames, sizes = one.sizes(film)
    if not len(frames):
        return
    shares = np.ones(int(frames[-1] - frames[0]) + 1)
    for number, pixels in zip(frames.tolist(), sizes.tolist(), strict=True):
        shares[number - frames[0]] = _share(film, one, number, pixels)
    for begin, end in runs(shares < _ENOUGH):
        first = int(frames[0])
        yield Finding(
            check="strength",
            grade="bad" if one.tracker.face else "doubt",
            message=f"What “{one.cover.clip.name}” covers can be made out again for {clock(film, end - begin)}: it is too weak.",
            clip=one.cover.outer.id,
            mend=_stronger(one, float(sizes.max())),
            **film.stretch(first + begin, first + end),
        )


def _share(film: Film, one: Covering, number: int, pixels: float) -> float:
    """By what share a cover is as strong as it should be over a thing of so many canvas pixels."""
    cover = one.cover.clip
    assert isinstance(cover, Pictured)
    local = int(one.cover.moments[number]) - cover.start
    if opacity_at(cover, local) < _WHOLE:
        return 0.0
    if isinstance(cover, SolidClip):
        fill = still_at(cover.fill, local)
        clear = isinstance(fill, PlainFill) and plain(fill.opacity) < _WHOLE
        return 0.0 if clear else 1.0
    assert isinstance(cover, AdjustmentClip)
    effects = [still_at(effect, local) for effect in cover.effects if effect.on]
    if any(effect.kind not in STRENGTHS for effect in effects):
        # What others do to it nobody can tell.
        return 1.0
    return max((_of(effect, pixels) for effect in effects), default=0.0)


def _of(effect: EffectBase, pixels: float) -> float:
    strength = STRENGTHS[effect.kind]
    if plain(effect.mix) < _WHOLE:
        return 0.0
    return float(plain(getattr(effect, strength.number)) / strength.over(pixels))


def _stronger(one: Covering, pixels: float) -> dict[str, Any] | None:
    """A step that makes an effect of a cover as strong as it has to be; none where it is not so plain."""
    cover = one.cover.clip
    effects = cover.effects if isinstance(cover, AdjustmentClip) else ()
    effect = next((effect for effect in effects if effect.on and effect.kind in STRENGTHS), None)
    if effect is None or one.cover.way:
        return None
    strength = STRENGTHS[effect.kind]
    values = {strength.number: round(strength.over(pixels), 1), "mix": 1.0}
    named = {"clips": [cover.id], "list": "effects", "part": effect.id}
    return {"kind": "set_part", **named, "values": values}


checks.register("strength")(
    Check(label="Nothing of what is covered can be made out", of="picture", run=_strength)
)
