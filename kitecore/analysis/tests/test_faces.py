"""Faces of a real photograph in made takes: where they are is known."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Final
from unittest import TestCase
from unittest.mock import patch

import av
import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray

from kitecore.analysis.faces import FacesFound, boxes_seen, read_faces
from kitecore.analysis.track import read_track
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_video
from kitecore.tracking.faces import faces_in
from kitecore.tracking.persons import persons_of

SIZE: Final = (360, 640)
COUNT: Final = 45
FACE: Final = np.array([[180.0, 62.0], [266.0, 173.0]])
"""Of the photograph: left top, right bottom."""


def photograph() -> NDArray[np.uint8]:
    """Of one person, 300 × 300; her face is about a third as high."""
    return np.asarray(skimage.data.astronaut()[:300, 80:380])


def at(number: int) -> NDArray[np.float64]:
    return np.array([20 + 0.9 * number, 120 + 20 * np.sin(number / 8)])


def frame(number: int, walks: bool) -> av.VideoFrame:
    shot = cv2.resize(skimage.data.coffee(), SIZE)
    if walks:
        x, y = at(number)
        shift = np.array([[1, 0, x], [0, 1, y]])
        person = cv2.warpAffine(photograph(), shift, SIZE, flags=cv2.INTER_LINEAR)
        there = cv2.warpAffine(np.full((300, 300), 255, np.uint8), shift, SIZE) > 127
        shot = np.where(there[..., None], person, shot)
    return av.VideoFrame.from_ndarray(np.ascontiguousarray(shot), format="rgb24")


def edges(quad: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Left top and right bottom of what was followed, in pixels."""
    pixels = quad * SIZE[1] + np.array(SIZE) / 2
    return pixels.min(axis=0), pixels.max(axis=0)


class FacesInTest(TestCase):
    def test_a_face_is_found_in_every_size_and_nothing_where_there_is_none(self) -> None:
        whole = skimage.data.astronaut()
        for size in (512, 256, 128):
            small = cv2.resize(whole, (size, size), interpolation=cv2.INTER_AREA)
            [face] = faces_in(np.asarray(small), size // 10)
            np.testing.assert_allclose(face[:4] / size * 512, FACE.ravel(), atol=16)
            self.assertGreater(face[4], 0.9)
        for name in ("coffee", "chelsea", "rocket"):
            self.assertEqual(0, len(faces_in(getattr(skimage.data, name)(), 24)), name)

    def test_odd_pictures_are_no_trouble(self) -> None:
        for height, width in ((1, 1), (12, 200), (200, 11), (64, 64)):
            black = np.zeros((height, width, 3), np.uint8)
            self.assertEqual((0, 5), faces_in(black, 20).shape)


class PersonsTest(TestCase):
    def test_two_that_cross_stay_themselves(self) -> None:
        def boxes(row: int) -> NDArray[np.float32]:
            left, right = 10 + 6 * row, 200 - 6 * row
            return np.array(
                [[left, 20, left + 30, 60, 0.9], [right, 90, right + 30, 130, 0.9]], np.float32
            )

        first, second = persons_of((5 * row, boxes(row)) for row in range(25))
        self.assertEqual([20] * 25, [int(box[1]) for box in first.boxes])
        self.assertEqual([90] * 25, [int(box[1]) for box in second.boxes])
        self.assertEqual(list(range(0, 125, 5)), first.numbers)

    def test_one_who_was_away_shortly_is_the_same_and_a_ghost_is_nobody(self) -> None:
        face = np.array([[10, 20, 40, 60, 0.9]], np.float32)
        ghost = np.array([[300, 20, 330, 60, 0.85]], np.float32)
        none = np.zeros((0, 5), np.float32)
        rows = [face, face, none, np.concatenate([face, ghost]), *[none] * 9, face, face]
        persons = persons_of(enumerate(rows))
        self.assertEqual([[0, 1, 3], [13, 14]], [one.numbers for one in persons])


class FoundTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        for name in ("walks", "nobody"):
            path = make_video(
                cls.root / f"{name}.mp4",
                frames=COUNT,
                size=SIZE,
                options={"preset": "ultrafast", "crf": "16"},
                draw=lambda number, walks=name == "walks": frame(number, walks),
            )
            ingested(cls.root, name, path)

    def found(self, name: str) -> FacesFound:
        return read_faces(MediaFolder(self.root / name))

    def test_a_person_is_found_and_can_be_followed(self) -> None:
        [person] = self.found("walks").persons
        self.assertEqual(0, person.first)
        track = read_track(MediaFolder(self.root / "walks"), person.tracked)
        self.assertGreaterEqual(len(track.quads), COUNT - 1)
        for number in range(0, COUNT - 1, 4):
            quad = track.at(number) * SIZE[1] + np.array(SIZE) / 2
            middle = at(number) + FACE.mean(axis=0) - (80, 0)
            self.assertLess(np.hypot(*(quad.mean(axis=0) - middle)), 8, number)
        self.assertTrue((track.sure > 166).all())

    def test_what_is_followed_of_a_face_is_as_wide_as_the_face_that_is_found(self) -> None:
        folder = MediaFolder(self.root / "walks")
        [person] = self.found("walks").persons
        wide = read_track(folder, person.tracked)
        bare = read_track(folder, person.tracked.model_copy(update={"face": False}))
        looks = {number: boxes for number, boxes in boxes_seen(folder).items() if len(boxes)}
        self.assertGreater(len(looks), 5)
        for number, [box] in looks.items():
            (left, top), (right, bottom) = edges(wide.at(number))
            self.assertLess(max(left - box[0], top - box[1]), 0.1)
            self.assertLess(max(box[2] - right, box[3] - bottom), 0.1)
        missed = max(box[2] - edges(bare.at(number))[1][0] for number, [box] in looks.items())
        self.assertGreater(missed, 1, "what was followed alone is as wide")

    def test_where_nobody_is_nobody_is_found(self) -> None:
        self.assertEqual((), self.found("nobody").persons)

    def test_without_the_models_it_says_so(self) -> None:
        folder = MediaFolder(self.root / "nobody")
        with (
            patch("kitecore.analysis.faces.can_find_faces", lambda: False),
            patch("kitecore.analysis._base.place_of", lambda *_: self.root / "elsewhere"),
            self.assertRaisesRegex(BadInput, "not installed"),
        ):
            read_faces(folder)
