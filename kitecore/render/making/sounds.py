"""Files that are only sound."""

from __future__ import annotations

from dataclasses import dataclass

import av

from kitecore.media.whole import whole_file
from kitecore.render.making.atoms import write_atoms
from kitecore.render.making.cover import Cover, CoverIn, atoms_of
from kitecore.render.making.format import Format, Joining
from kitecore.render.making.gain import Gain, GainIn, replay_gain
from kitecore.render.making.soundtrack import SoundCoding, Soundtrack
from kitecore.render.making.tags import write_tags
from kitecore.render.making.work import Work


@dataclass(frozen=True, kw_only=True)
class Sound(Format):
    """The mix, encoded in one go.

    ``cover_in`` and ``gain`` as of `Film`.
    """

    kind = "sound"
    container: str
    coding: SoundCoding
    cover_in: CoverIn = ""
    gain: GainIn = ""

    @property
    def can_cover(self) -> bool:
        return bool(self.cover_in)

    def join(self, work: Work, to: Joining) -> None:
        seconds, gain = len(work.numbers) / work.rate.fraction, Gain()
        with whole_file(to.path) as path, av.open(str(path), "w", format=self.container) as out:
            write_tags(out, to.tags, seconds)
            if self.gain == "tags":
                out.metadata.update(replay_gain(work, to.sources))
            hear = gain.hear if self.gain == "atoms" else None
            sound = Soundtrack(out, self.coding, work, to.sources, hear)
            if work.cover is not None and self.cover_in == "stream":
                Cover(out, work, work.cover, to.sources).write()
            for second in range(int(seconds)):
                sound.encode(until=second + seconds % 1)
                to.progress(float(second / seconds))
            sound.finish()
            out.close()
            write_atoms(path, gain.tags, atoms_of(self.cover_in, work, to.sources))
