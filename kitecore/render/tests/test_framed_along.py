"""Files of another shape whose window stays on what is followed."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.edits.tests.populated import SECOND
from kitecore.render.export import ExportSettings, make, piece_key, plan
from kitecore.render.making.following import corner_at
from kitecore.render.making.framing import framed
from kitecore.render.tests.scene import SIZE
from kitecore.render.tests.trackedfilm import COUNT, FRAME, TrackedFilm

SQUARE = {"width": 1, "height": 1}
CALM = 15
"""Frames before and behind which evening out has whole stretches to look at."""


class FramedAlongTest(TrackedFilm):
    def settings(self, fit: str) -> ExportSettings:
        return ExportSettings.model_validate({"shape": SQUARE, "fit": fit})

    def reds_in_file(self, settings: ExportSettings) -> list[NDArray[np.float64]]:
        """The middle of what is red, in pixels of the file, frame by frame; nan where there is none."""
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "film.mp4"
            make(self.scene.document, settings, path, self.sources)
            with av.open(str(path)) as film:
                frames = [frame.to_ndarray(format="rgb24") for frame in film.decode(video=0)]
        found = []
        for frame in frames:
            rows, columns = np.nonzero((frame[..., 0] > 150) & (frame[..., 1] < 90))
            found.append(np.array([columns.mean(), rows.mean()] if len(rows) else [np.nan] * 2))
        return found

    def window(self, number: int, **more: Any) -> tuple[int, int]:
        work = self.settings("follow").work(self.scene.document)
        return corner_at(work, number * FRAME, self.sources)

    def test_the_thing_stays_in_the_middle_of_a_square_file(self) -> None:
        leader = self.tracked("turns", place={"size": [1.6, 1.6]})
        self.put(leader, position=[v * 1.6 for v in self.on_thing("turns")])
        still = np.array(self.reds_in_file(self.settings("fill")))[CALM:-CALM, 1]
        along = np.array(self.reds_in_file(self.settings("follow")))
        self.assertEqual(COUNT, len(along))
        down = along[CALM:-CALM, 1]
        self.assertFalse(np.isnan(down).any())
        self.assertGreater(np.nanmax(still) - np.nanmin(still), 12)
        free = [
            number
            for number in range(CALM, COUNT - CALM)
            if -140 < self.window(number)[1] < 0  # where the canvas's edges do not hold it
        ]
        self.assertGreater(len(free), 5)
        for number in free:
            self.assertAlmostEqual(90, along[number, 1], delta=6)

    def test_the_window_never_leaves_the_canvas(self) -> None:
        self.tracked("turns", place={"position": [0, 300]})
        self.assertEqual((0, 180 - 320), self.window(5))
        framing = framed(SIZE, (1, 1), "follow", 0)
        self.assertEqual((0, 0), framing.around((-3.0, -3.0)))
        self.assertEqual((0, -140), framing.around((9.0, 9.0)))

    def test_a_mirrored_and_turned_clip_is_followed_where_it_is_seen(self) -> None:
        place = {"mirrored": True, "turn": 20, "position": [5, -30]}
        leader = self.tracked("turns", place=place)
        x, y = self.on_thing("turns")
        cos, sin = np.cos(np.radians(20)), np.sin(np.radians(20))
        spot = [-x * cos - y * sin + 5, -x * sin + y * cos - 30]
        self.put(leader, position=spot)
        number = COUNT // 2
        at = self.window(number)[1]
        around = [self.middle(n)[1] for n in range(number - 12, number + 13)]
        self.assertAlmostEqual(min(max(90 - np.mean(around), -140), 0), at, delta=4)

    def test_where_nothing_is_followed_it_lies_in_the_middle(self) -> None:
        self.scene.place("turns", 1)
        self.assertEqual((0, -70), self.window(3))
        whole = ExportSettings.model_validate({"fit": "follow"}).work(self.scene.document)
        self.assertFalse(whole.framing.follows)

    def test_what_is_not_seen_beside_a_track_alone_leads_nothing(self) -> None:
        self.tracked("turns")
        self.assertNotEqual((0, -70), self.window(COUNT - 1))
        self.scene.place("red", COUNT / 30, mode="above")
        document = self.scene.document
        [above] = [track for track in document.tracks if track.kind == "picture" and track.clips]
        self.scene.document = document.with_track(above.model_copy(update={"solo": True}))
        self.assertEqual((0, -70), self.window(COUNT - 1))

    def test_pieces_depend_on_what_leads_the_window(self) -> None:
        clip = self.tracked("turns")

        def key(fit: str) -> str:
            settings = self.settings(fit)
            work = settings.work(self.scene.document)
            return piece_key(work, settings.recipe, plan(work)[0], self.scene.find)  # type: ignore[arg-type]

        before, plain = key("follow"), key("fill")
        self.assertNotEqual(before, plain)
        smooth = {f"trackers/{self.thing}/smooth": 0.5}
        self.scene.do(kind="adjust", clips=[clip], values=smooth)
        self.assertNotEqual(before, key("follow"))
        self.assertEqual(plain, key("fill"))

    def test_at_a_cut_it_goes_over_at_once(self) -> None:
        self.tracked("turns")
        self.scene.place("turns", 1)
        self.assertNotEqual((0, -70), self.window(COUNT - 1))
        self.assertEqual(
            (0, -70),
            corner_at(
                self.settings("follow").work(self.scene.document),
                round(COUNT / 30 * SECOND),
                self.sources,
            ),
        )
