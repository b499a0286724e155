from __future__ import annotations

import numpy as np

from kitecore.document.inserts.compressor import Compressor
from kitecore.sound.following import followed_down, level_db, over_threshold, settling
from kitecore.sound.inserts._base import Numbers, Over, Processing, insert_sounds
from kitecore.sound.ramps import Samples


def reduction(insert: Compressor, samples: Samples, over: Over) -> Numbers:
    """How much quieter it makes each sample, in dB."""
    level = level_db(samples)
    wanted = over_threshold(
        level, over.each(insert.threshold), over.each(insert.ratio), over.each(insert.knee)
    )
    return followed_down(wanted, insert.attack, insert.release)


def _compressed(insert: Compressor, samples: Samples, over: Over) -> Samples:
    gain = over.each(insert.makeup) - reduction(insert, samples, over)
    return samples * np.power(10.0, gain / 20).astype(np.float32)[:, None]


insert_sounds.register("compressor")(
    Processing(_compressed, lambda insert: settling(insert.attack, insert.release))
)
