"""One function for stills, playing and export: the same picture in all three."""

from __future__ import annotations

import io
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import av
import numpy as np
import simplejpeg

from kitecore.document import Place
from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import decoded_numbers, read_number
from kitecore.motion.pose import Pose
from kitecore.render.export import ExportSettings
from kitecore.render.extract import content_key
from kitecore.render.frame import render, render_planes
from kitecore.render.passing import covering_at
from kitecore.render.pieces import picture_piece
from kitecore.render.placing import land
from kitecore.render.readers import IDLE
from kitecore.render.sources import Sources
from kitecore.render.still import still
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span

CODED = 6
"""Mean levels of 255 by which a JPEG or H.264 picture may differ from the one before coding."""


CONVERTED = 2
"""Mean levels of 255 between two ways of making RGB of the same planes."""


class PictureTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        folder = cls.enterClassContext(tempfile.TemporaryDirectory())
        cls.scene = scene = Scene(Path(folder))
        scene.video("a", frames=60)
        scene.video("wide", frames=60, size=(320, 180))
        scene.still("kite", (250, 60, 40, 255), (40, 60))
        scene.place("a", 1.0, into=0.5)
        scene.place("wide", 1.0)
        scene.place(
            "kite", 1.5, mode="above", at=0.5, opacity=0.7,
            place={"position": [20, -40], "turn": 25, "size": [0.4, 0.4]},
        )  # fmt: skip
        scene.still("blue", (0, 0, 255, 255), (50, 50))

    def sources(self, draft: bool = False) -> Sources:
        sources = Sources(self.scene.find, draft=draft)
        self.addCleanup(sources.close)
        return sources

    def at(self, frame: int) -> int:
        return frame * SECOND // 30

    def test_the_frame_shown_is_the_one_the_cut_says(self) -> None:
        sources = self.sources()
        for frame, number in ((0, 15), (14, 29), (29, 44)):
            picture = render(self.scene.document, self.at(frame), SIZE, sources)
            if frame < 15:
                self.assertEqual(number, read_number(picture))

    def test_still_playing_and_export_show_the_same(self) -> None:
        document = self.scene.document
        for size in (SIZE, (90, 160)):
            side = max(size)
            piece = picture_piece(document, 0, 60, size, self.sources())
            with av.open(io.BytesIO(piece)) as played:
                moving = [f.to_ndarray(format="rgb24") for f in played.decode(video=0)]
            settings = ExportSettings(long_side=side, quality="best")
            path = Path(tempfile.mkdtemp(dir=self.scene.root)) / "piece"
            work = settings.work(document)
            settings.recipe.encode_piece(work, work.numbers, path, self.sources())
            with av.open(str(path)) as exported:
                film = [f.to_ndarray(format="rgb24") for f in exported.decode(video=0)]
            self.assertEqual((60, 60), (len(moving), len(film)))
            sources = self.sources()
            for frame in (0, 20, 44, 59):
                drawn = render(document, self.at(frame), size, sources)[..., :3].astype(int)
                jpeg = still(document, self.at(frame), side, sources)
                shown = simplejpeg.decode_jpeg(jpeg).astype(int)
                for other in (shown, moving[frame], film[frame]):
                    self.assertLess(np.abs(drawn - other).mean(), CODED)

    def test_any_size_is_the_same_picture(self) -> None:
        sources = self.sources()
        large = render(self.scene.document, self.at(40), SIZE, sources)[..., :3]
        small = render(self.scene.document, self.at(40), (90, 160), sources)[..., :3]
        shrunk = large.reshape(160, 2, 90, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(shrunk - small).mean(), 2.5)

    def test_planes_that_go_through_are_those_that_are_drawn(self) -> None:
        document, sources = self.scene.document, self.sources()
        self.assertIsNotNone(covering_at(document, self.at(3), sources))
        self.assertIsNone(covering_at(document, self.at(20), sources))
        drawn = render(document, self.at(3), SIZE, sources)[..., :3].astype(int)
        through = render_planes(document, self.at(3), SIZE, sources).to_ndarray(format="rgb24")
        self.assertLess(np.abs(drawn - through).mean(), CONVERTED)

    def test_hidden_solo_and_background(self) -> None:
        document, sources = self.scene.document, self.sources()
        main, above = document.tracks[:2]

        def middle(**tracks: object) -> list[int]:
            changed = document
            for track, change in ((main, tracks.get("main")), (above, tracks.get("above"))):
                if change:
                    changed = changed.with_track(track.model_copy(update=change))
            return render(changed, self.at(40), SIZE, sources)[160, 5, :3].tolist()

        self.assertEqual([0, 0, 0], middle(main={"hidden": True}))
        self.assertEqual([0, 0, 0], middle(above={"solo": True}))

    def test_a_still_lies_where_its_place_says(self) -> None:
        sources = self.sources()
        blue = (
            self.scene.document.tracks[1]
            .clips[0]
            .model_copy(
                update={
                    "media": "blue",
                    "start": 0,
                    "place": Place(fit="own", position=(-40.0, 70.0)),
                }
            )
        )
        track = self.scene.document.tracks[1].with_clips((blue,))
        document = self.scene.document.with_track(track)
        document = document.with_track(document.main.model_copy(update={"clips": ()}))
        picture = render(document, 0, SIZE, sources)
        rows, columns = np.nonzero(picture[..., 2] > 90)
        # 50 × 50 pixels around (90 - 40, 160 + 70); opacity 0.7.
        self.assertEqual((25, 74, 205, 254), (columns.min(), columns.max(), rows.min(), rows.max()))
        self.assertEqual(round(255 * 0.7), int(picture[230, 50, 2]))

    def test_proxies_serve_drafts_only(self) -> None:
        for draft, wanted in ((True, True), (False, False)):
            sources = self.sources(draft)
            render(self.scene.document, 0, (90, 160), sources)
            self.assertEqual([wanted], [proxy for _, _, proxy in sources.readers])

    def test_the_cache_is_bounded_and_readers_are_few(self) -> None:
        sources = Sources(self.scene.find, cache_bytes=400_000)
        self.addCleanup(sources.close)
        for frame in range(60):
            render(self.scene.document, self.at(frame), SIZE, sources)
            self.assertLessEqual(sources.cache.used, 400_000)
        self.assertLessEqual(len(sources.readers), 8)

    def test_large_readers_that_are_idle_are_closed_and_none_that_is_used(self) -> None:
        self.scene.video("one", frames=60)
        self.scene.video("other", frames=60)
        with patch("kitecore.render.readers.BYTES", 0):
            sources = self.sources()
            for number in range(4):
                for media in ("one", "other"):
                    sources.video(media, number, media, SIZE)
            self.assertEqual({"one", "other"}, {media for media, _, _ in sources.readers})
            for number in range(IDLE + 2):
                sources.video("other", 10 + number, "other", SIZE)
            sources.video("a", 0, "a", SIZE)
        self.assertEqual(["other", "a"], [media for media, _, _ in sources.readers])

    def test_frames_of_a_film_are_all_there_in_order(self) -> None:
        scene = Scene(self.scene.root)
        scene.place("a", 2.0)
        document = scene.document
        path = Path(tempfile.mkdtemp(dir=self.scene.root)) / "piece"
        settings = ExportSettings()
        settings.recipe.encode_piece(settings.work(document), range(7, 49), path, self.sources())
        self.assertEqual(list(range(7, 49)), decoded_numbers(path))


class KeyTest(TestCase):
    def test_a_piece_is_named_by_what_is_seen_in_it(self) -> None:
        folder = self.enterContext(tempfile.TemporaryDirectory())
        scene = Scene(Path(folder))
        scene.video("a", frames=90)
        for _ in range(4):
            scene.place("a", 2.0)
        before = scene.document
        scene.do(kind="adjust", clips=[before.main.clips[3].id], values={"opacity": 0.5})

        def key(document: object, first: float, last: float) -> str:
            span = Span(round(first * SECOND), round(last * SECOND))
            return content_key(document, span, scene.find, "picture")  # type: ignore[arg-type]

        self.assertEqual(key(before, 0, 1), key(scene.document, 0, 1))
        self.assertNotEqual(key(before, 7, 8), key(scene.document, 7, 8))
        self.assertNotEqual(key(before, 0, 1), key(before, 0, 1.5))


class LandingTest(TestCase):
    def test_a_picture_is_never_fetched_larger_than_it_is_or_is_drawn(self) -> None:
        for size, wanted in ((0.5, (540, 960)), (1.0, (1080, 1920)), (3.0, (1080, 1920))):
            landing = land(Place(), Pose(size=(size, size)), (1080, 1920), (1080, 1920), np.eye(3))
            self.assertEqual(wanted, landing.pixels)
        turned = land(
            Place(), Pose(size=(0.5, 0.5), turn=10), (1080, 1920), (1080, 1920), np.eye(3)
        )
        self.assertGreaterEqual(turned.pixels[0], 540)
