"""Files that are only sound."""

from __future__ import annotations

from dataclasses import dataclass

import av

from kitecore.media.whole import whole_file
from kitecore.render.making.cover import Cover
from kitecore.render.making.format import Format, Joining
from kitecore.render.making.gain import replay_gain
from kitecore.render.making.soundtrack import SoundCoding, Soundtrack
from kitecore.render.making.tags import write_tags
from kitecore.render.making.work import Work


@dataclass(frozen=True, kw_only=True)
class Sound(Format):
    """The mix, encoded in one go.

    ``can_cover`` and ``tells_gain`` as of `Film`.
    """

    kind = "sound"
    container: str
    coding: SoundCoding
    can_cover: bool = False
    tells_gain: bool = False

    def join(self, work: Work, to: Joining) -> None:
        seconds = len(work.numbers) / work.rate.fraction
        with whole_file(to.path) as path, av.open(str(path), "w", format=self.container) as out:
            write_tags(out, to.tags, seconds)
            if self.tells_gain:
                out.metadata.update(replay_gain(work, to.sources))
            sound = Soundtrack(out, self.coding, work, to.sources)
            if work.cover is not None:
                Cover(out, work, work.cover, to.sources).write()
            for second in range(int(seconds)):
                sound.encode(until=second + seconds % 1)
                to.progress(float(second / seconds))
            sound.finish()
