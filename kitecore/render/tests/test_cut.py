"""Speed, transitions, groups and split screens to the frame, in the exported file."""

from __future__ import annotations

import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import ingested, make_video, read_number
from kitecore.render.export import ExportSettings, make
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span

FRAME = SECOND // 30


class FilmCase(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        scene.video("a", frames=150)
        scene.video("b", frames=150, gop=50)
        for name, colour in (("red", (255, 0, 0)), ("blue", (0, 0, 255)), ("green", (0, 255, 0))):
            scene.still(name, (*colour, 255), SIZE)

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def clip(self, name: str) -> str:
        return next(c.id for _, c in self.scene.document.clips() if c.name == name)

    def do(self, **fields: object) -> None:
        self.scene.do(**fields)

    def film(self) -> list[NDArray[np.uint8]]:
        """The frames of the exported file, read back."""
        folder = Path(tempfile.mkdtemp(dir=self.root))
        settings = ExportSettings(quality="best")
        make(self.scene.document, settings, folder / "film", self.sources)
        with av.open(str(folder / "film")) as film:
            return [frame.to_ndarray(format="rgb24") for frame in film.decode(video=0)]

    def numbers(self) -> list[int]:
        return [read_number(frame) for frame in self.film()]

    def picture(self, frame: int) -> NDArray[np.uint8]:
        return render(self.scene.document, frame * FRAME, SIZE, self.sources)


class SpeedFilmTest(FilmCase):
    def test_fast_slow_reverse_freeze_and_split(self) -> None:
        self.scene.place("a", 1.0, into=1.0)
        self.do(kind="set_speed", clips=[self.clip("a")], factor=2)
        self.assertEqual(list(range(30, 60, 2)), self.numbers())
        self.do(kind="set_speed", clips=[self.clip("a")], factor=0.5)
        self.assertEqual([n // 2 for n in range(60, 120)], self.numbers())
        self.do(kind="set_speed", clips=[self.clip("a")], factor=1)
        self.do(kind="reverse", clips=[self.clip("a")])
        self.assertEqual(list(range(59, 29, -1)), self.numbers())
        self.do(kind="split", clips=[self.clip("a")], at=10 * FRAME)
        self.assertEqual(list(range(59, 29, -1)), self.numbers())
        later = self.scene.document.main.clips[1].id
        self.do(kind="freeze", clip=later, at=15 * FRAME, length=5 * FRAME)
        frozen = [*range(59, 44, -1), *[44] * 5, *range(44, 29, -1)]
        self.assertEqual(frozen, self.numbers())

    def test_a_ramp_shows_the_frame_under_its_curve(self) -> None:
        self.scene.place("b", 3.0, into=0.5)
        points = [{"at": 0, "speed": 0.2}, {"at": 2 * SECOND, "speed": 2.0}]
        self.do(kind="ramp", clip=self.clip("b"), points=points, keep="length", soft=False)
        wanted = []
        for frame in range(90):
            t = frame / 30
            # The area under a straight line from 0.2 to 2 over 2 s, then at 2.
            passed = 0.2 * min(t, 2) + 0.9 * min(t, 2) ** 2 / 2 + 2 * max(0, t - 2)
            wanted.append(int((0.5 + passed) * 30 + 1e-6))
        self.assertEqual(wanted, self.numbers())

    def test_in_between_frames_are_nearer_to_what_was_left_out(self) -> None:
        """A ball goes over a paper ground; every second frame is left out and made again."""
        frames = [_ball(n) for n in range(24)]
        for name, kept in (("whole", frames), ("half", frames[::2])):
            _film(self.root / "x", kept, 30 if name == "whole" else 15)
            ingested(self.root, name, self.root / "x")
        errors = {}
        for between in ("nearest", "blended", "motion"):
            self.scene = Scene(self.root)
            self.scene.place("half", 0.4)
            self.do(kind="set_speed", clips=[self.clip("half")], factor=0.5)
            self.do(kind="adjust", clips=[self.clip("half")], values={"between": between})
            # At half speed one frame of the 15 a second lies four frames from the next.
            wrong = [
                self.picture(4 * n + 2).astype(float)
                - self.sources.video("whole", 2 * n + 1, "truth", SIZE)
                for n in range(1, 4)
            ]
            errors[between] = float(np.mean(np.square(wrong)))
        self.assertLess(errors["blended"], errors["nearest"])
        self.assertLess(errors["motion"], 0.5 * errors["blended"])

    def test_slowing_across_a_cut_inside_a_take_mixes_no_two_shots(self) -> None:
        shots = [_ball(n) for n in range(8)] + [255 - _ball(n)[::-1] for n in range(8)]
        _film(self.root / "x", shots, 30)
        folder = ingested(self.root, "two-shots", self.root / "x")
        self.assertEqual({8}, folder.shots)
        for between in ("blended", "motion"):
            self.scene = Scene(self.root)
            self.scene.place("two-shots", 16 / 30)
            self.do(kind="set_speed", clips=[self.clip("two-shots")], factor=0.25)
            self.do(kind="adjust", clips=[self.clip("two-shots")], values={"between": between})
            for frame in range(27, 38):
                wanted = self.sources.video("two-shots", 7 if frame < 32 else 8, "truth", SIZE)
                off = np.abs(self.picture(frame)[..., :3].astype(int) - wanted[..., :3]).mean()
                self.assertLess(off, 12, f"{between} {frame}")

    def test_another_pace_is_evened_out_at_normal_speed_too(self) -> None:
        frames = [_ball(2 * n) for n in range(12)]
        _film(self.root / "x", frames, 15)
        ingested(self.root, "slow-pace", self.root / "x")
        self.scene.place("slow-pace", 0.6)
        plain = self.picture(5)
        self.do(kind="adjust", clips=[self.clip("slow-pace")], values={"between": "blended"})
        first, second = (self.sources.video("slow-pace", n, "truth", SIZE) for n in (2, 3))
        np.testing.assert_array_equal(plain, first)
        wanted = (first.astype(int) + second) / 2
        self.assertLess(np.abs(self.picture(5) - wanted).max(), 2)
        np.testing.assert_array_equal(self.picture(4), first)


def _ball(number: int) -> NDArray[np.uint8]:
    y, x = np.mgrid[0 : SIZE[1], 0 : SIZE[0]].astype(np.float64)
    ground = 120 + 30 * np.sin(x / 9) * np.cos(y / 13)
    away = np.hypot(x - 30 - 5 * number, y - 160 - 2 * number)
    ball = np.clip(36 - away, 0, 1)[..., None]
    paint = np.array([235, 80, 60]) + 15 * np.sin(away / 4)[..., None]
    return np.rint(ground[..., None] * (1 - ball) + paint * ball).clip(0, 255).astype(np.uint8)


def _film(path: Path, frames: list[NDArray[np.uint8]], rate: int) -> None:
    with av.open(str(path), "w", format="mp4") as out:
        stream = out.add_stream("libx264", rate=rate, options={"crf": "4"})
        stream.width, stream.height, stream.pix_fmt = *SIZE, "yuv420p"
        stream.codec_context.time_base = stream.time_base = Fraction(1, rate)
        for number, frame in enumerate(frames):
            planes = av.VideoFrame.from_ndarray(frame, format="rgb24")
            planes = planes.reformat(
                format="yuv420p", dst_colorspace="ITU709", dst_color_range="MPEG"
            )
            planes.pts, planes.time_base = number, Fraction(1, rate)
            out.mux(stream.encode(planes))
        out.mux(stream.encode(None))


class TransitionTest(FilmCase):
    def cross(self, frames: int = 10, **transition: object) -> None:
        self.scene.place("red", 1.0)
        self.scene.place("blue", 1.0)
        self.do(
            kind="set_transition",
            clip=self.clip("blue"),
            transition={"length": frames * FRAME, **transition},
        )

    def test_a_dissolve_takes_its_frames_and_no_others(self) -> None:
        self.cross(kind="dissolve")
        film = self.film()
        self.assertEqual(60, len(film))
        for frame, picture in enumerate(film):
            share = min(max((frame + 0.5 - 25) / 10, 0), 1)
            wanted = np.array([255 * (1 - share), 0, 255 * share])
            got = picture[100:200, 50:100].mean(axis=(0, 1))
            self.assertLess(np.abs(got - wanted).max(), 5, frame)

    def test_both_sides_go_on_moving(self) -> None:
        self.scene.place("a", 1.0, into=1.0)
        self.scene.place("b", 1.0, into=2.0)
        wipe = {"kind": "wipe", "length": 10 * FRAME, "angle": 0, "softness": 0}
        self.do(kind="set_transition", clip=self.clip("b"), transition=wipe)
        got = self.numbers()
        self.assertEqual([*range(30, 55), *range(65, 90)], got[:25] + got[35:])
        for frame in (26, 33):
            share = (frame + 0.5 - 25) / 10
            line = round(SIZE[0] * share)
            first = render_alone(self, "a", 30 + frame)
            second = render_alone(self, "b", 60 + frame - 30)
            picture = self.picture(frame)
            self.assertLess(
                np.abs(picture[:, : line - 1].astype(int) - second[:, : line - 1]).max(), 2
            )
            self.assertLess(
                np.abs(picture[:, line + 1 :].astype(int) - first[:, line + 1 :]).max(), 2
            )

    def test_push_and_slide_move_by_their_share(self) -> None:
        for kind in ("push", "slide"):
            self.scene = Scene(self.root)
            self.cross(kind=kind, angle=90)
            picture = self.picture(27)
            line = round(SIZE[1] * 0.25)
            self.assertEqual([0, 0, 255], picture[line - 2, 90, :3].tolist())
            self.assertEqual([255, 0, 0], picture[line + 2, 90, :3].tolist())

    def test_dip_and_blur_meet_in_the_middle(self) -> None:
        self.cross(frames=2, kind="dip", colour="#00ff00")
        self.assertLess(np.abs(self.picture(29)[50, 50, :3].astype(int) - [127, 127, 0]).max(), 3)
        self.scene = Scene(self.root)
        self.cross(frames=10, kind="blur_through", amount=20)
        self.assertLess(np.abs(self.picture(30)[50, 50, :3].astype(int) - [85, 0, 170]).max(), 40)

    def test_pieces_on_both_sides_of_a_join_know_of_it(self) -> None:
        self.cross(kind="dissolve")
        span = Span(0, 27 * FRAME)
        before = content_key(self.scene.document, span, self.scene.find)
        take = {"kind": "still", "media": "green", "name": "blue"}
        self.do(kind="replace", clip=self.clip("blue"), take=take)
        self.assertNotEqual(before, content_key(self.scene.document, span, self.scene.find))
        early = Span(0, 20 * FRAME)
        first = content_key(self.scene.document, early, self.scene.find)
        self.do(kind="set_transition", clip=self.clip("blue"), transition=None)
        self.assertEqual(first, content_key(self.scene.document, early, self.scene.find))


def render_alone(case: FilmCase, media: str, number: int) -> NDArray[np.int64]:
    """Frame ``number`` of a take over the whole canvas."""
    scene = Scene(case.root)
    scene.place(media, 1 / 30, into=number / 30)
    return render(scene.document, 0, SIZE, case.sources).astype(int)


class GroupFilmTest(FilmCase):
    def test_a_group_shows_what_its_clips_did(self) -> None:
        self.scene.place("a", 1.0, into=1.0)
        self.scene.place(
            "green", 0.5, mode="above", at=0.25, opacity=0.5, place={"size": [0.5, 0.5]}
        )
        plain = [self.picture(frame) for frame in range(0, 30, 5)]
        self.do(kind="group", clips=[c.id for _, c in self.scene.document.clips()])
        for frame, wanted in zip(range(0, 30, 5), plain, strict=True):
            self.assertLessEqual(np.abs(self.picture(frame).astype(int) - wanted).max(), 1)

    def test_speed_of_a_group_and_five_of_them_nested(self) -> None:
        self.scene.place("a", 1.0, into=1.0)
        self.scene.place("b", 1.0, into=0.0)
        for _ in range(5):
            ids = [clip.id for _, clip in self.scene.document.clips()]
            self.do(kind="group", clips=ids, name="nest")
        self.do(kind="set_speed", clips=[self.clip("nest")], factor=2)
        forwards = [*range(30, 60, 2), *range(0, 30, 2)]
        self.assertEqual(forwards, self.numbers())
        self.do(kind="reverse", clips=[self.clip("nest")])
        self.assertEqual(forwards[::-1], self.numbers())

    def test_numbered_stills_hold_their_order(self) -> None:
        for number in range(4):
            level = 40 + 60 * number
            self.scene.still(f"n{number}", (level, level, level, 255), (60, 60))
        clip = {
            "kind": "sequence", "name": "row", "pictures": [f"n{n}" for n in range(4)],
            "each": 2 * FRAME, "length": 24 * FRAME, "place": {"fit": "fill"},
        }  # fmt: skip
        orders = {
            "forward": [0, 1, 2, 3] * 3,
            "backward": [3, 2, 1, 0] * 3,
            "there_and_back": [0, 1, 2, 3, 2, 1] * 2,
        }
        for order, wanted in orders.items():
            self.scene = Scene(self.root)
            self.do(kind="place", clip=clip | {"order": order})
            self.do(kind="split", at=6 * FRAME)
            shown = [round((int(self.picture(f)[100, 90, 0]) - 40) / 60) for f in range(0, 24, 2)]
            self.assertEqual(wanted, shown)


class ScreenFilmTest(FilmCase):
    def test_cells_show_their_clips_and_nothing_else(self) -> None:
        for name in ("red", "blue", "green"):
            self.scene.place(name, 1.0)
        ids = [self.clip(name) for name in ("red", "blue", "green")]
        self.do(kind="split_screen", clips=ids, rows=[1, 2])
        screen = self.scene.document.main.clips[0].cell.screen
        self.do(kind="set_screen", screen=screen, gap=20, margin=10)
        self.assertEqual(SECOND, self.scene.document.length)
        picture = self.picture(10)
        self.assertEqual([255, 0, 0], picture[80, 90, :3].tolist())
        self.assertEqual([0, 0, 255], picture[240, 40, :3].tolist())
        self.assertEqual([0, 255, 0], picture[240, 140, :3].tolist())
        for y, x in ((160, 90), (240, 90), (3, 90), (200, 4)):
            self.assertEqual([0, 0, 0], picture[y, x, :3].tolist())
        self.do(kind="swap_cells", first=ids[1], second=ids[2])
        self.assertEqual([0, 255, 0], self.picture(10)[240, 40, :3].tolist())

    def test_slanted_round_cells_are_smooth_and_cover_what_they_should(self) -> None:
        from kitecore.picture.cells import cell_mask

        corners = np.array([[10.0, 10], [90, 10], [70, 70], [10, 70]])
        radius = 12
        mask = cell_mask(corners, radius, 100, 80)
        big = 8
        y, x = (np.mgrid[0 : 80 * big, 0 : 100 * big] + 0.5) / big
        inside = _inside(corners, x, y) & ~_cut_corners(corners, radius, x, y)
        wanted = inside.reshape(80, big, 100, big).mean(axis=(1, 3)) * 255
        self.assertLess(np.abs(mask - wanted).max(), 26)
        self.assertLess(abs(mask.mean() - wanted.mean()), 0.2)


def _inside(corners: NDArray[np.float64], x: NDArray, y: NDArray) -> NDArray[np.bool_]:
    found = np.ones(x.shape, bool)
    for a, b in zip(corners, np.roll(corners, -1, axis=0), strict=True):
        found &= (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]) >= 0
    return found


def _cut_corners(
    corners: NDArray[np.float64], radius: float, x: NDArray, y: NDArray
) -> NDArray[np.bool_]:
    """Outside of the circle that touches both edges, between corner and circle."""
    cut = np.zeros(x.shape, bool)
    for index, corner in enumerate(corners):
        to_a = corners[index - 1] - corner
        to_b = corners[(index + 1) % len(corners)] - corner
        to_a, to_b = to_a / np.hypot(*to_a), to_b / np.hypot(*to_b)
        half = np.arccos(np.clip(to_a @ to_b, -1, 1)) / 2
        middle = corner + (to_a + to_b) / np.hypot(*(to_a + to_b)) * radius / np.sin(half)
        reach = radius / np.tan(half)
        dx, dy = x - corner[0], y - corner[1]
        near = (dx * to_a[0] + dy * to_a[1] < reach) & (dx * to_b[0] + dy * to_b[1] < reach)
        cut |= near & (np.hypot(x - middle[0], y - middle[1]) > radius)
    return cut


class PictureFileTest(FilmCase):
    def test_backwards_through_long_stretches_between_key_frames(self) -> None:
        path = make_video(self.root / "x", frames=100, gop=100, options={"bf": "2"})
        ingested(self.root, "long", path)
        for number in range(99, -1, -7):
            for wanted in (number, max(0, number - 1)):
                pixels = self.sources.video("long", wanted, "lane", (160, 240))
                self.assertEqual(wanted, read_number(pixels))

    def test_a_still_has_no_speed(self) -> None:
        Image.new("RGB", (8, 8)).save(self.root / "x", "PNG")
        self.scene.place("red", 1.0)
        with self.assertRaisesRegex(Exception, "no speed"):
            self.do(kind="set_speed", clips=[self.clip("red")], factor=2)
