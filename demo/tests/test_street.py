"""What is followed in the demo's street is where it is; the cover hides the face."""

from __future__ import annotations

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import cv2
import numpy as np
import skia

from demo import street
from demo.films import FILMS, make_film
from demo.project import Source
from demo.scenes import Draw
from kitecore import edits
from kitecore.document import VideoClip, empty_document
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.tracking.follow import SURE

SIZE = (540, 960)
LASTS = 6.5


class StreetTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        film = next(film for film in FILMS if film.name == street.TAKE)
        small = replace(film, width=SIZE[0], height=SIZE[1], sound="")
        take = ingested(cls.root, "street", make_film(small, cls.root))
        cls.document = empty_document()
        for edit in street.street_edits({street.TAKE: Source("street", take.info.length)}):
            cls.document = edits.apply(cls.document, edit)
        over = {"Cover", "sun", "sign before the sun"}
        bare = tuple(
            track
            for track in cls.document.tracks
            if track.name != "Cover" and not over & {clip.name for clip in track.clips}
        )
        cls.bare = cls.document.model_copy(update={"tracks": bare})
        cls.sources = Sources(lambda media: MediaFolder(cls.root / media))
        cls.addClassCleanup(cls.sources.close)

    def test_sign_and_face_are_found_within_two_pixels(self) -> None:
        [video] = self.document.main.clips
        assert isinstance(video, VideoClip)
        for tracker, at in zip(video.trackers[:2], (street.sign_at, street.face_at), strict=True):
            track = self.sources.track(video.media, tracker)
            for number in range(0, round(LASTS * 30), 3):
                hidden = tracker.name == "face" and street.hidden(number / 30)
                if hidden:
                    continue
                self.assertGreater(track.sure[number] / 255, SURE, (tracker.name, number))
                found = track.at(number) * SIZE[1] + np.array(SIZE) / 2
                off = np.hypot(*(found - at(number / 30) / 2).T).mean()
                self.assertLess(off, 2.0, (tracker.name, number))

    def test_the_sign_is_cut_out_as_it_swings(self) -> None:
        [before] = [c for _, c in self.document.clips() if c.name == "sign before the sun"]
        assert isinstance(before, VideoClip) and before.cutout and before.cutout.through
        mattes = self.sources.mattes(before.media, before.cutout.through)
        shares = []
        for number in range(0, round(LASTS * 30), 5):
            alpha = mattes.at(number)
            assert alpha is not None
            true = np.zeros(alpha.shape, np.uint8)
            quad = street.sign_at(number / 30) * alpha.shape[0] / 1920
            cv2.fillConvexPoly(true, np.rint(quad).astype(np.int32), 1)
            found, sign = alpha > 0.5, true > 0
            shares.append((found & sign).sum() / (found | sign).sum())
        self.assertGreater(min(shares), 0.85)
        self.assertGreater(np.mean(shares), 0.93)

    def test_stains_of_the_walls_are_healed_but_not_in_whoever_walks_past(self) -> None:
        step = self.document.rate.exact.frame_ticks
        clean = street.street(*SIZE, stained=False)
        for number in (0, *range(50, 74, 4), *range(82, 94, 4), 120, 190):
            shown = render(self.bare, number * step, SIZE, self.sources)[..., :3].astype(float)
            wanted = _drawn(clean, number / 30)
            for stain in range(2):
                x, y = np.rint(street.stain_at(stain, number / 30) / 2).astype(int)
                part = np.s_[y - 10 : y + 11, x - 10 : x + 11]
                # While an edge goes across, a few pixels of it may be taken for either.
                most = 14 if stain and 48 < number < 84 else 8
                self.assertLess(np.abs(shown - wanted)[part].mean(), most, (number, stain))

    def test_nothing_of_the_face_can_be_made_out(self) -> None:
        step = self.document.rate.exact.frame_ticks
        for number in range(0, round(LASTS * 30), 10):
            face = np.zeros(SIZE[::-1], np.uint8)
            cv2.fillConvexPoly(face, np.rint(street.face_at(number / 30) / 2).astype(np.int32), 1)
            seen = face.astype(np.bool_)
            covered, plain = (
                render(one, number * step, SIZE, self.sources)[..., :3].astype(float)
                for one in (self.document, self.bare)
            )
            left, was = (_detail(picture)[seen] for picture in (covered, plain))
            if not street.hidden(number / 30):
                self.assertLess(np.corrcoef(left, was)[0, 1], 0.35, number)


def _drawn(draw: Draw, time: float) -> np.ndarray:
    """A frame of a film as it is drawn, before any coding."""
    surface = skia.Surface(*SIZE)
    draw(surface.getCanvas(), time)
    return surface.toarray(colorType=skia.kRGBA_8888_ColorType)[..., :3].astype(float)


def _detail(picture: np.ndarray) -> np.ndarray:
    """What is finer than a square of the mosaic."""
    return np.asarray((picture - cv2.GaussianBlur(picture, (0, 0), 4)).mean(axis=2))
