"""How far beside a stretch of time its sound looks."""

from __future__ import annotations

from kitecore.document import Document, Holding, Track
from kitecore.sound.inserts import chain_reach
from kitecore.sound.limiter import REACH
from kitecore.sound.ramps import SAMPLE_TICKS
from kitecore.sound.stepping import STEP, reach


def run_up(document: Document) -> tuple[int, int]:
    """Ticks before and after a stretch that its sound depends on, by chains and the limiter."""
    before, after = (REACH + own for own in chain_reach(document.strip.chain))
    inner = [_track_reach(track) for track in document.tracks]
    before += max((one for one, _ in inner), default=0)
    after += max((other for _, other in inner), default=0)
    return before * SAMPLE_TICKS, after * SAMPLE_TICKS


def _track_reach(track: Track) -> tuple[int, int]:
    """Of a track's chain, those of its clips and of what is in its groups."""
    before, after = chain_reach(track.strip.chain)
    if under := track.strip.under:
        around = reach(under.fade, under.ahead) * STEP
        before, after = max(before, around), max(after, around)
    deepest = [(0, 0)]
    for clip in track.clips:
        chain = getattr(clip, "chain", ())
        if isinstance(clip, Holding):
            inner = [_track_reach(one) for one in clip.tracks] or [(0, 0)]
            own = chain_reach(chain)
            deepest.append((own[0] + max(b for b, _ in inner), own[1] + max(a for _, a in inner)))
        elif chain:
            deepest.append(chain_reach(chain))
    return before + max(b for b, _ in deepest), after + max(a for _, a in deepest)
