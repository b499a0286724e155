"""A made crowd that walks through a street: where every face is, and how much of it is seen, is known."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Final

import av
import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray

from kitecore.analysis.faces import read_faces
from kitecore.analysis.track import Track, read_track
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_video
from kitecore.tracking.follow import SURE

Mask = NDArray[np.bool_]

_MIDDLE: Final = np.array([143.0, 117.0])
"""Of the face in the photograph, and half of its width and height there."""
_HALF: Final = np.array([43.0, 56.0])
_LARGER: Final = np.sqrt(2) * 1.12
"""A cover goes around the corners of what is followed, and is larger by a margin."""
_SEEN: Final = 0.65
"""Share of a face from which on it is one: less is hidden, or behind the picture's edge."""
_BARE: Final = 0.05
_CORNERS: Final = np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]])


def _person() -> NDArray[np.uint8]:
    """Somebody from a photograph, cut out; premultiplied by nothing, alpha last."""
    shape = np.zeros((300, 300), np.uint8)
    cv2.ellipse(shape, (143, 110), (75, 100), 0, 0, 360, 255, -1)
    cv2.ellipse(shape, (150, 330), (140, 160), 0, 0, 360, 255, -1)
    return np.dstack([skimage.data.astronaut()[:300, 80:380], cv2.GaussianBlur(shape, (0, 0), 1.2)])


@dataclass(frozen=True)
class Walker:
    """``pace``: pixels a frame; ``seed``: how this one looks and sways."""

    seed: int
    start: tuple[float, float]
    pace: float
    size: float

    def place(self, number: int) -> NDArray[np.float64]:
        """From the photograph to a frame, shape (2, 3)."""
        chance = np.random.default_rng(self.seed)
        mirrored, sways, period = chance.random() < 0.5, chance.uniform(2, 6), chance.uniform(9, 16)
        x = self.start[0] + self.pace * number
        y = self.start[1] + sways * np.sin(2 * np.pi * number / period + self.seed)
        turn = np.radians(4) * np.sin(number / 14 + self.seed)
        cos, sin = np.cos(turn) * self.size, np.sin(turn) * self.size
        across = -1 if mirrored else 1
        map_ = np.array([[across * cos, -sin], [across * sin, cos]])
        return np.column_stack([map_, np.array([x, y]) - map_ @ _MIDDLE])


class Crowd:
    """Walkers by chance, those that are larger before the others."""

    def __init__(self, seed: int, count: int, size: tuple[int, int]) -> None:
        chance, (width, height) = np.random.default_rng(seed), size
        self.size = size
        self._person = _person()
        self.walkers = sorted(
            (
                Walker(
                    seed=100 * seed + one,
                    start=(chance.uniform(0, 1) * width, chance.uniform(0.25, 0.55) * height),
                    pace=chance.uniform(1, 4) * chance.choice([-1, 1]) * width / 960,
                    size=chance.uniform(0.3, 0.75) * height / 540,
                )
                for one in range(count)
            ),
            key=lambda walker: walker.size,
        )
        street = cv2.resize(np.dstack([skimage.data.brick()] * 3), size)
        self._street = cv2.GaussianBlur(street, (0, 0), 1).astype(np.float32)

    def frame(self, number: int) -> av.VideoFrame:
        shot = self._street.copy()
        for walker in self.walkers:
            person = cv2.warpAffine(self._person, walker.place(number), self.size)
            share = person[..., 3:] / np.float32(255)
            light = np.random.default_rng(walker.seed).uniform(0.7, 1.1, 3)
            shot += share * (np.minimum(person[..., :3] * light, 255) - shot)
        shot += np.random.default_rng(number).normal(0, 2, shot.shape)
        return av.VideoFrame.from_ndarray(np.clip(shot, 0, 255).astype(np.uint8), format="rgb24")

    def filmed(self, root: Path, frames: int) -> MediaFolder:
        """As a take that was brought in, in a folder of ``root``."""
        path = make_video(
            root / "crowd.mp4",
            frames=frames,
            size=self.size,
            options={"preset": "ultrafast", "crf": "18"},
            draw=self.frame,
        )
        ingested(root, "crowd", path)
        return MediaFolder(root / "crowd")

    def seen(self, number: int) -> list[tuple[Mask, float]]:
        """Of each face what is seen of it in a frame, and which share of it that is."""
        return [self._seen(at, number) for at in range(len(self.walkers))]

    def _seen(self, at: int, number: int) -> tuple[Mask, float]:
        place = self.walkers[at].place(number)
        corners = (_MIDDLE + _HALF * _CORNERS) @ place[:, :2].T + place[:, 2]
        face = round_it(corners, self.size)
        whole = np.pi / 4 * np.prod(2 * _HALF * self.walkers[at].size)
        for other in self.walkers[at + 1 :]:
            before = cv2.warpAffine(self._person[..., 3], other.place(number), self.size)
            face &= before < 128
        return face, float(face.sum() / whole)


def round_it(quad: NDArray[np.float64], size: tuple[int, int], larger: float = 1.0) -> Mask:
    """The ellipse that touches the sides of a quad, so many times larger."""
    middle, (along, down) = quad.mean(axis=0), (quad[1] - quad[0], quad[3] - quad[0])
    axes = float(np.hypot(*along)) * larger, float(np.hypot(*down)) * larger
    turn = float(np.degrees(np.arctan2(along[1], along[0])))
    out = np.zeros(size[::-1], np.uint8)
    cv2.ellipse(out, ((float(middle[0]), float(middle[1])), axes, turn), 255, -1)
    return out > 0


@dataclass(frozen=True)
class Told:
    """How many faces were ``seen`` in all frames (most of each); of these, which were
    ``bare`` though nothing was told (frame, walker), and how many had ``unsure`` covers alone.
    """

    seen: int
    bare: list[tuple[int, int]]
    unsure: int


def uncovered(folder: MediaFolder, crowd: Crowd, frames: int) -> Told:
    """What covers over all persons that are found by themselves leave open."""
    tracks = [read_track(folder, person.tracked) for person in read_faces(folder).persons]
    seen, unsure, bare = 0, 0, []
    for number in range(frames):
        covers = [_cover(one, number, crowd.size) for one in tracks if _goes(one, number)]
        for at, (face, share) in enumerate(crowd.seen(number)):
            if share < _SEEN:
                continue
            seen += 1
            over = [sure for cover, sure in covers if (cover & face).sum() * 2 > face.sum()]
            unsure += bool(over) and not any(over)
            left = face & ~np.any([cover for cover, _ in covers], axis=0) if covers else face
            told = any(not sure and (cover & face).any() for cover, sure in covers)
            if left.sum() > _BARE * face.sum() and not told:
                bare.append((number, at))
    return Told(seen, bare, unsure)


def _goes(track: Track, number: int) -> bool:
    return track.first <= number < track.first + len(track.sure)


def _cover(track: Track, number: int, size: tuple[int, int]) -> tuple[Mask, bool]:
    """Where a cover is, and whether it is surely there."""
    quad = track.at(number) * size[1] + np.array(size) / 2
    return round_it(quad, size, _LARGER), track.sure[number - track.first] >= round(SURE * 255)
