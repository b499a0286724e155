from __future__ import annotations

from kitecore.document.inserts.compressor import Compressor
from kitecore.sound.following import (
    GRAIN,
    followed_down,
    loudest,
    over_threshold,
    settling,
    turned_down,
)
from kitecore.sound.inserts._base import Numbers, Over, Processing, insert_sounds
from kitecore.sound.ramps import Samples


def reduction(insert: Compressor, samples: Samples, over: Over) -> Numbers:
    """How much quieter it makes each grain, in dB."""
    at = over.grains
    level = loudest(samples, over.lead)
    wanted = over_threshold(level, at(insert.threshold), at(insert.ratio), at(insert.knee))
    return followed_down(wanted, insert.attack, insert.release)


def _compressed(insert: Compressor, samples: Samples, over: Over) -> Samples:
    less = reduction(insert, samples, over) - over.grains(insert.makeup)
    return turned_down(samples, less, over.lead)


insert_sounds.register("compressor")(
    Processing(
        _compressed,
        lambda insert: settling(insert.attack, insert.release),
        # The last grain is looked at whole.
        lambda insert: GRAIN,
        reduction=reduction,
    )
)
