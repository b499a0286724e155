"""Several cameras: the wall while all play, and lining up."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

from benchmarks.rows import Row, seconds, side_by_side
from kitecore import edits
from kitecore.document import empty_document
from kitecore.edits.tests.populated import edit
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import fitting
from kitecore.media.tests.material import ingested, make_video, numbered
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.render.wall import wall
from kitecore.sound.alignment import aligned, heard
from kitecore.sound.tests.test_alignment import RATE, in_noise, part, spoken

ANGLES = 9
FRAMES = 90
_SIZE = (1080, 1920)
_TEN_MINUTES = 600


def cameras() -> list[Row]:
    with TemporaryDirectory() as folder:
        return [_wall(Path(folder)), _lining()]


def _wall(root: Path) -> Row:
    for number in range(ANGLES):
        source = make_video(
            root / "x",
            frames=FRAMES,
            size=_SIZE,
            options={"preset": "ultrafast"},
            draw=lambda frame, by=100 * number: numbered(frame + by, _SIZE, "yuv420p"),
        )
        ingested(root, f"m{number}", source)

    def find(media: str) -> MediaFolder:
        return MediaFolder(root / media)

    takes = [
        {"media": f"m{n}", "name": f"camera {n}", "kind": "video", "length": find("m0").info.length}
        for n in range(ANGLES)
    ]
    document = edits.apply(empty_document(), edit(kind="gather_angles", takes=takes, seed="wall"))
    [clip] = document.main.clips
    shown = wall(document, clip.id, 3)
    size = fitting(shown.canvas.width, shown.canvas.height, 640)

    def play() -> None:
        sources = Sources(find, draft=True)
        for first in range(0, FRAMES, 15):
            picture_piece(shown, first, first + 15, size, sources)
        sources.close()

    rate = FRAMES / side_by_side(3, play)[0]
    how = f"pieces of half a second at 640 px, {ANGLES} upright takes of {_SIZE[0]} × {_SIZE[1]}"
    what = f"the wall of {ANGLES} angles"
    return Row(what, f"{rate:.0f} pictures a second", "≥ 25", how, rate >= 25)


def _lining() -> Row:
    sound = spoken(1, _TEN_MINUTES + 40)
    near, far = (np.repeat(part(sound, begin, _TEN_MINUTES), 48_000 // RATE) for begin in (0, 33.3))
    far = in_noise(far, 2, 3)
    found: list[Any] = []

    def line_up() -> None:
        found.append(aligned(heard(far, 48_000), heard(near, 48_000)))

    taken = seconds(line_up)
    right = found[0] is not None and abs(found[0].offset - 33.3) < 0.001
    how = "two sounds of ten minutes, one in noise; from their decoded samples on"
    return Row("lining up two cameras", f"{taken:.1f} s", "≤ 3 s", how, right and taken <= 3)
