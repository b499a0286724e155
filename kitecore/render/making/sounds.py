"""Files that are only sound."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

import av

from kitecore.render.making._format import Format
from kitecore.render.making.soundtrack import SoundCoding, Soundtrack
from kitecore.render.making.tags import Tags, write_tags
from kitecore.render.making.work import Share, Work, unheard
from kitecore.render.sources import Sources


@dataclass(frozen=True, kw_only=True)
class Sound(Format):
    """The mix, encoded in one go."""

    kind = "sound"
    in_pieces = False
    container: str
    coding: SoundCoding

    def join(
        self,
        work: Work,
        pieces: Sequence[Path],
        path: Path,
        sources: Sources,
        tags: Tags,
        progress: Share = unheard,
    ) -> None:
        unfinished, seconds = path.with_suffix(".part"), len(work.numbers) / work.rate.fraction
        with av.open(str(unfinished), "w", format=self.container) as out:
            write_tags(out, tags, seconds)
            sound = Soundtrack(out, self.coding, work, sources)
            for second in range(int(seconds)):
                sound.encode(until=second + seconds % 1)
                progress(float(second / seconds))
            sound.finish()
        unfinished.replace(path)
