"""What is seen and heard of multicam clips, by the numbers that frames carry and by known sounds."""

from __future__ import annotations

from pathlib import Path
from typing import Any
from unittest.mock import patch

import numpy as np

from kitecore.analysis.voice import VOICE_SAMPLES
from kitecore.document import Canvas, Document, MulticamClip
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused, NotThere
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import numbered, read_number, tone
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.render.speaking import pauses
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.render.tests.test_cut import FRAME, FilmCase
from kitecore.render.wall import grid_of, wall
from kitecore.render.whose_turn import turns
from kitecore.ticks import Span

NAMES = ("one", "two", "three")
"""Cameras; the frames of each carry its hundreds."""


class MulticamFilm(FilmCase):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        scene = Scene(cls.root)
        for number, name in enumerate(NAMES):
            scene.video(
                name,
                frames=60,
                sound=tone(2.0, frequency=300 * (number + 1)),
                sound_codec="flac",
                container="matroska",
                draw=lambda frame, by=100 * number: numbered(frame + by, SIZE, "yuv420p"),
            )
        scene.sound("mic", 2.0, frequency=1500)

    def setUp(self) -> None:
        super().setUp()
        takes = []
        for name in (*NAMES, "mic"):
            info = self.scene.find(name).info
            takes.append({"media": name, "name": name, "kind": info.kind, "length": info.length})
        self.do(kind="gather_angles", takes=takes)

    @property
    def multicam(self) -> MulticamClip:
        return next(c for _, c in self.scene.document.clips() if isinstance(c, MulticamClip))

    def on(self, kind: str, **fields: Any) -> None:
        self.do(kind=kind, clip=self.multicam.id, **fields)

    def switch(self, *cuts: tuple[int, int]) -> None:
        self.on("switch", cuts=[{"at": frame * FRAME, "angle": angle} for frame, angle in cuts])


class SeenTest(MulticamFilm):
    def test_the_exported_film_switches_on_the_frame(self) -> None:
        self.on("line_up", places=[{"angle": 1, "at": 5 * FRAME}])
        self.switch((10, 1), (20, 2), (21, 0), (40, 1))
        wanted = [*range(10), *range(105, 115), 220, *range(21, 40), *range(135, 160)]
        self.assertEqual(wanted, self.numbers()[: len(wanted)])

    def test_rolls_splits_speed_and_groups_show_the_same_frames(self) -> None:
        self.switch((10, 1), (30, 2))
        self.on("roll_switch", at=10 * FRAME, by=3 * FRAME)
        wanted = [*range(13), *range(113, 130), *range(230, 260)]
        self.do(kind="split", at=20 * FRAME)
        self.assertEqual(wanted, self.numbers()[:60])
        ids = [clip.id for clip in self.scene.document.main.clips]
        self.do(kind="group", clips=ids, name="both")
        self.assertEqual(wanted, self.numbers()[:60])
        self.do(kind="set_speed", clips=[self.clip("both")], factor=2)
        self.assertEqual(wanted[::2], self.numbers()[:30])

    def test_a_dissolve_at_a_switch_has_both_angles(self) -> None:
        self.switch((30, 1))
        for frame in (28, 32):
            alone = render(self.scene.document, frame * FRAME, SIZE, self.sources)
            self.assertEqual(frame + (100 if frame >= 30 else 0), read_number(alone))
        self.on("cross_switch", transition={"kind": "dissolve", "length": 10 * FRAME})
        before, after = (self._alone(name, 30).astype(float) for name in ("one", "two"))
        share = 5.5 / 10
        mixed = before * (1 - share) + after * share
        self.assertLess(np.abs(self.picture(30)[..., :3] - mixed[..., :3]).max(), 2)
        self.assertEqual([24, 135], [read_number(self.picture(at)) for at in (24, 35)])

    def _alone(self, media: str, frame: int) -> np.ndarray:
        scene = Scene(self.root)
        scene.place(media, 1 / 30, into=frame / 30)
        return render(scene.document, 0, SIZE, self.sources)

    def test_what_is_done_to_an_angle_is_seen_where_it_is(self) -> None:
        self.switch((10, 1), (20, 0))
        self.do(kind="split", at=15 * FRAME)
        self.do(
            kind="adjust",
            within=self.multicam.id,
            clips=[self.multicam.angle(1).id],
            values={"opacity": 0.0},
        )
        dark = [int(self.picture(at)[..., :3].max()) == 0 for at in (9, 10, 14, 15, 19, 20)]
        self.assertEqual([False, True, True, True, True, False], dark)

    def test_only_pieces_that_changed_are_made_anew(self) -> None:
        self.switch((10, 1), (40, 2))
        find = lambda media: MediaFolder(Path(self.root) / media)  # noqa: E731

        def names() -> list[str]:
            document = self.scene.document
            return [
                content_key(document, Span(at * FRAME, (at + 15) * FRAME), find)
                for at in (0, 15, 30, 45)
            ]

        before = names()
        self.on("roll_switch", at=40 * FRAME, by=2 * FRAME)
        changed = [a != b for a, b in zip(before, names(), strict=True)]
        self.assertEqual([False, False, True, False], changed)
        before = names()
        angle = self.multicam.angle(0).id
        self.do(kind="adjust", within=self.multicam.id, clips=[angle], values={"opacity": 0.5})
        changed = [a != b for a, b in zip(before, names(), strict=True)]
        self.assertEqual([True, False, False, False], changed)


class HeardTest(MulticamFilm):
    def mix(self, start: int = 0, count: int = 96_000) -> np.ndarray:
        return render_samples(self.scene.document, start, count, self.sources)

    def test_the_main_sound_runs_through_all_switches_to_the_sample(self) -> None:
        self.on("hear_angles", hears=[3, 3, 3, 3])
        plain = self.mix()
        self.switch(*((frame, frame // 4 % 3) for frame in range(4, 60, 4)))
        self.assertEqual(plain.tobytes(), self.mix().tobytes())
        pieces = [self.mix(at, 4800) for at in range(0, 96_000, 4800)]
        self.assertLess(np.abs(np.concatenate(pieces) - plain).max(), 1e-6)

    def test_sound_lies_between_frames(self) -> None:
        self.on("hear_angles", hears=[3, 3, 3, 3])
        plain = self.mix()
        self.on("nudge_angle", angle=3, by=100 * SECOND // 48_000)
        later = self.mix()
        self.assertLess(np.abs(later[5000:90_000] - plain[4900:89_900]).max(), 1e-6)

    def test_drift_is_taken_out_to_the_sample(self) -> None:
        self.on("hear_angles", hears=[3, 3, 3, 3])
        drift, held = 1e-3, 0.7
        clock = {"angle": 3, "drift": drift, "held": round(held * SECOND)}
        self.on("even_clocks", clocks=[clock])
        heard = self.mix()[5_000:90_000, 0]
        recorded = held + (np.arange(5_000, 90_000) / 48_000 - held) * (1 + drift)
        wanted = 0.5 * np.sin(2 * np.pi * 1500 * recorded)
        level = float(heard @ wanted / (wanted @ wanted))
        self.assertLess(np.abs(heard - level * wanted).max(), 0.01 * np.abs(heard).max())

    def test_sound_goes_with_the_picture_or_by_a_map_without_a_click(self) -> None:
        self.switch((20, 1), (40, 2))
        self.on("hear_angles", hears=[0, 2, 2, 3])
        mixed = self.mix()[:, 0]
        loudest = [int(np.abs(np.fft.rfft(part)).argmax()) for part in mixed.reshape(3, 32_000)]
        self.assertEqual([200, 600, 600], loudest)
        steepest = np.abs(np.diff(mixed)).max()
        self.assertLess(steepest, 0.5 * 2 * np.pi * 900 / 48_000 * 1.2)


def _near(self: Sources, media: str) -> np.ndarray[Any, Any]:
    """The first camera is near the one who speaks until 1 s, the second near the other."""
    first = np.repeat([1.0, 0.05], 100).astype(np.float32)
    return {"one": first, "two": first[::-1] * 4}.get(media, np.full(200, 0.5, np.float32))


class TurnsTest(MulticamFilm):
    def speaking(self, surely: int) -> None:
        steps = np.full(2 * 48_000 // VOICE_SAMPLES + 1, surely, np.uint8)
        self.enterContext(patch.object(Sources, "voice", lambda self, media: steps))

    def test_who_speaks_is_shown(self) -> None:
        self.speaking(255)
        self.enterContext(patch.object(Sources, "power", _near))
        self.on("line_up", places=[{"angle": 1, "at": 6 * FRAME}, {"angle": 2, "at": 6 * FRAME}])
        [first, second] = turns(self.scene.document, self.multicam.id, self.sources)
        self.assertEqual({"at": 0, "angle": 0}, first)
        self.assertEqual(1, second["angle"])
        # What the second hears lies six frames later, and the step between the two is at a second.
        self.assertAlmostEqual(30, second["at"] / FRAME, delta=7)
        self.on("switch", cuts=[first, second], until=self.multicam.end)
        self.assertEqual([0, 1], [one.angle for one in self.multicam.switches])

    def test_pauses_are_those_of_what_is_heard(self) -> None:
        surely = np.full(2 * 48_000 // VOICE_SAMPLES + 1, 255, np.uint8)
        surely[len(surely) // 2 :] = 0
        self.enterContext(patch.object(Sources, "voice", lambda self, media: surely))
        self.switch((20, 1))
        [(begin, end)] = pauses(self.scene.document, self.multicam.id, 0.5, 0, self.sources)
        self.assertAlmostEqual(30, begin / FRAME, delta=2)
        self.assertEqual(self.multicam.end, end)

    def test_who_speaks_is_not_told_where_nobody_does_or_all_hear_alike(self) -> None:
        self.speaking(255)
        alike = np.ones(200, np.float32)
        self.enterContext(patch.object(Sources, "power", lambda self, media: alike))
        with self.assertRaisesRegex(EditRefused, "alike"):
            turns(self.scene.document, self.multicam.id, self.sources)
        self.speaking(0)
        with self.assertRaisesRegex(EditRefused, "Nobody"):
            turns(self.scene.document, self.multicam.id, self.sources)


class WallTest(MulticamFilm):
    def cells(self, frame: int, **how: Any) -> list[int]:
        """The numbers in the cells of a wall."""
        document = wall(self.scene.document, self.multicam.id, 2, **how)
        count = len(how.get("apart", NAMES))
        grid = grid_of(count, self.scene.document.canvas, 2)
        picture = render(
            document, frame * FRAME, (grid.canvas.width, grid.canvas.height), self.sources
        )
        rows = picture.reshape(grid.rows, grid.cell[1], grid.columns, grid.cell[0], 4)
        cells = rows.swapaxes(1, 2).reshape(-1, grid.cell[1], grid.cell[0], 4)
        return [read_number(cell) for cell in cells[:count]]

    def test_all_angles_run_side_by_side_whatever_is_switched_to(self) -> None:
        self.on("line_up", places=[{"angle": 1, "at": 5 * FRAME}])
        self.switch((10, 2))
        self.assertEqual([20, 115, 220], self.cells(20))
        self.do(kind="trim", clip=self.multicam.id, edge="start", to=9 * FRAME)
        self.do(kind="set_speed", clips=[self.multicam.id], factor=2)
        self.assertEqual([29, 124, 229], self.cells(10))

    def test_the_film_is_shown_beside_its_angles_twice_as_large_where_those_take_two_rows(
        self,
    ) -> None:
        self.switch((10, 2))
        document = wall(self.scene.document, self.multicam.id, 2, film=True)
        grid = grid_of(3, self.scene.document.canvas, 2, film=True)
        size = (grid.canvas.width, grid.canvas.height)
        picture = render(document, 20 * FRAME, size, self.sources)
        self.assertEqual((4 * grid.cell[0], 2 * grid.cell[1]), size)
        halves = np.split(picture, 2, axis=1)
        film = render(self.scene.document, 20 * FRAME, (size[0] // 2, size[1]), self.sources)
        self.assertLess(np.abs(halves[0].astype(int) - film).mean(), 1)
        rows = halves[1].reshape(2, grid.cell[1], 2, grid.cell[0], 4).swapaxes(1, 2)
        cells = rows.reshape(-1, grid.cell[1], grid.cell[0], 4)[:3]
        self.assertEqual([20, 120, 220], [read_number(cell) for cell in cells])

    def test_switching_makes_nothing_of_the_wall_anew_and_its_sound_is_the_films(self) -> None:
        self.on("hear_angles", hears=[3, 3, 3, 3])
        span = Span(5 * FRAME, 20 * FRAME)

        def names(document: Document) -> tuple[str, str]:
            find = self.scene.find
            return content_key(document, span, find), content_key(document, span, find, heard=True)

        before = names(wall(self.scene.document, self.multicam.id, 2))
        film = names(self.scene.document)
        self.switch((10, 2))
        self.assertEqual(before, names(wall(self.scene.document, self.multicam.id, 2)))
        self.assertEqual(film[1], before[1])
        self.assertNotEqual(film[0], names(self.scene.document)[0])

    def test_what_is_heard_is_the_film(self) -> None:
        self.switch((10, 2))
        film = render_samples(self.scene.document, 0, 48_000, self.sources)
        shown = wall(self.scene.document, self.multicam.id, 3)
        heard = render_samples(shown, 0, 48_000, self.sources)
        self.assertEqual(film.tobytes(), heard.tobytes())

    def test_two_angles_are_checked_with_one_left_and_one_right(self) -> None:
        self.assertEqual([230, 30], self.cells(30, apart=[2, 0]))
        self.do(kind="set_track", track=self.scene.document.main.id, solo=True)
        document = wall(self.scene.document, self.multicam.id, 2, [1, 3])
        heard = render_samples(document, 12_000, 48_000, self.sources)
        loudest = [int(np.abs(np.fft.rfft(side)).argmax()) for side in heard.T]
        self.assertEqual([600, 1500], loudest)

    def test_cells_have_the_films_shape_however_many_stand_in_a_row(self) -> None:
        for width, height in ((1080, 1920), (1920, 1080), (1080, 1350)):
            for count in (1, 5, 16):
                for columns in (1, 3, 16):
                    grid = grid_of(count, Canvas(width=width, height=height), columns)
                    self.assertGreaterEqual(grid.columns * grid.rows, count)
                    self.assertAlmostEqual(width / height, grid.cell[0] / grid.cell[1], delta=0.06)
                    self.assertLessEqual(max(grid.canvas.width, grid.canvas.height), 1960)

    def test_a_wall_of_what_is_not_there_says_so(self) -> None:
        for id, apart in (("gone", []), (self.multicam.id, [7])):
            with self.assertRaises(NotThere):
                wall(self.scene.document, id, 2, apart)
