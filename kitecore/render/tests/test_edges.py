"""Edges of pictures, of cells and of the canvas; groups that hold more than the canvas shows."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from kitecore.media.tests.material import ingested
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, moved, sized, solid, turned
from kitecore.render.frame import render
from kitecore.render.tests.scene import SECOND, SIZE, Scene
from kitecore.render.tests.test_cut import FRAME, FilmCase

WHITE = (255, 255, 255)


class EnlargedTest(FilmCase):
    """A small white picture, much enlarged."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        Scene(cls.root).still("white", (*WHITE, 255), (22, 8))

    def shown(self, size: tuple[int, int] = SIZE) -> NDArray[np.uint8]:
        return render(self.scene.document, 0, size, self.sources)[..., :3]

    def test_a_picture_that_fills_the_canvas_is_not_darkened_at_its_edge(self) -> None:
        self.scene.place("white", 1.0, place={"fit": "fill"})
        for size in (SIZE, (90, 160), (54, 96)):
            with self.subTest(size):
                self.assertEqual(255, self.shown(size).min())

    def test_cells_without_a_gap_leave_no_seam(self) -> None:
        for rows, slant, upright in (
            ([2], 0, False),
            ([1, 1], 0, True),
            ([2, 3], 0, False),
            ([3], 20, False),
        ):
            for order in (1, -1):
                with self.subTest(rows=rows, slant=slant, upright=upright, order=order):
                    self.scene.document = self._split(rows, slant, upright, order)
                    for size in (SIZE, (102, 182), (70, 124)):
                        self.assertGreaterEqual(self.shown(size).min(), 254)

    def _split(self, rows: list[int], slant: float, upright: bool, order: int) -> Any:
        scene = Scene(self.root)
        for place in range(sum(rows))[::order]:
            cell = {
                "screen": "s", "rows": rows, "place": place, "gap": 0.0, "slant": slant,
                "upright": upright,
            }  # fmt: skip
            scene.place("white", 1.0, mode="above", cell=cell, place={"fit": "fill"})
        return scene.document

    def test_a_free_edge_is_soft_over_one_pixel_however_much_it_is_enlarged(self) -> None:
        canvas = solid(100, 20, (0, 0, 0))
        lay(canvas, Layer(solid(10, 4, WHITE), moved(20.25, -2) @ sized(5, 6)))
        self.assertEqual([0, 0, 191, 255, 255], canvas[10, 18:23, 0].tolist())
        self.assertEqual([255, 255, 64, 0, 0], canvas[10, 68:73, 0].tolist())

    def test_a_shift_by_parts_of_a_pixel_covers_as_much_as_it_has(self) -> None:
        canvas = solid(30, 30, (0, 0, 0))
        lay(canvas, Layer(solid(9, 9, WHITE), moved(5.25, 7.5)))
        self.assertLess(abs(canvas[..., 0].sum() / 255 - 81), 0.2)


class SharpnessTest(FilmCase):
    """A picture full of detail, made smaller: slowly, and turned."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        rng = np.random.default_rng(3)
        rough = rng.normal(0, 1, (80, 60)).astype(np.float32)
        cls.detail = np.clip(128 + 50 * cv2.resize(rough, (720, 960)), 0, 255)
        for _ in range(200):
            x, y, wide, high = rng.integers(0, 700, 2).tolist() + rng.integers(3, 40, 2).tolist()
            cls.detail[y : y + high, x : x + wide] = rng.integers(0, 256)
        cls.detail = np.repeat(cls.detail[..., None], 3, axis=2).astype(np.uint8)
        Image.fromarray(cls.detail).save(cls.root / "x", "PNG")
        ingested(cls.root, "detail", cls.root / "x")

    def middle(self, frame: int) -> NDArray[np.float64]:
        shown = render(self.scene.document, frame * FRAME, SIZE, self.sources)
        return shown[60:260, 30:150, 0].astype(float)

    def test_a_slow_zoom_does_not_pop(self) -> None:
        keys = [{"at": 0, "value": [1.3, 1.3]}, {"at": 60 * FRAME, "value": [1.7, 1.7]}]
        self.scene.place("detail", 2.0, place={"fit": "whole", "size": {"keys": keys}})
        self.assertLess(self._steps().max(), 0.03)

    def test_a_group_that_grows_does_not_pop(self) -> None:
        keys = [{"at": 0, "value": [0.9, 0.9]}, {"at": 60 * FRAME, "value": [1.2, 1.2]}]
        self.scene.place("detail", 2.0, place={"fit": "whole", "size": [1.3, 1.3]})
        self.do(kind="group", clips=[self.clip("detail")], name="held")
        size = {"place/size": {"keys": keys}}
        self.do(kind="adjust", clips=[self.clip("held")], values=size)
        # In steps of √√2 it jumped by 11 %.
        self.assertLess(self._steps().max(), 0.06)

    def _steps(self) -> NDArray[np.float64]:
        """By how much sharpness changes from frame to frame."""
        sharp = []
        for frame in range(60):
            shown = self.middle(frame)
            sharp.append(
                np.hypot(np.diff(shown, axis=0)[:, :-1], np.diff(shown, axis=1)[:-1]).mean()
            )
        return np.abs(np.diff(sharp)) / np.array(sharp[1:])

    def test_a_text_that_grows_does_not_pop(self) -> None:
        keys = [{"at": 0, "value": [1, 1]}, {"at": 60 * FRAME, "value": [1.6, 1.6]}]
        words = {
            "kind": "text",
            "name": "words",
            "text": "Paper\nWeather",
            "size": 30,
            "width": 170,
        }
        clip = {**words, "length": 2 * SECOND, "place": {"size": {"keys": keys}}}
        self.do(kind="place", clip=clip, mode="above")
        sharp = []
        for frame in range(60):
            shown = render(self.scene.document, frame * FRAME, (540, 960), self.sources)[..., 0]
            steep = np.abs(np.diff(shown.astype(float), axis=1))
            # How steep its edges are, however long they are.
            sharp.append(np.square(steep).sum() / steep.sum())
        self.assertLess((np.abs(np.diff(sharp)) / sharp[1:]).max(), 0.12)

    def test_a_turned_picture_is_not_softened_twice(self) -> None:
        self.scene.place("detail", 1.0, place={"fit": "whole", "size": [1.4, 1.4], "turn": 12})
        # The same in one pass: sampled eight times as finely, then averaged.
        fine, scale = 8, 1.4 * 180 / 720
        matrix = (
            moved(-0.5, -0.5) @ sized(fine, fine) @ moved(90, 160) @ turned(12)
            @ sized(scale, scale) @ moved(-360, -480) @ moved(0.5, 0.5)
        )  # fmt: skip
        large = cv2.warpAffine(
            self.detail[..., 0].astype(np.float32), matrix[:2], (180 * fine, 320 * fine)
        )
        wanted = cv2.resize(large, SIZE, interpolation=cv2.INTER_AREA)[60:260, 30:150]
        noise = np.square(self.middle(0) - wanted).mean()
        self.assertGreater(10 * np.log10(255**2 / noise), 35)


class WideGroupTest(FilmCase):
    """A group that holds a picture which lies mostly outside the canvas."""

    def group(self, **place: Any) -> str:
        beside = {"position": [-SIZE[0], 0]}
        self.scene.place("red", 1.0, place=beside)
        self.do(kind="group", clips=[self.clip("red")], name="held")
        held = self.clip("held")
        self.do(
            kind="adjust", clips=[held], values={f"place/{name}": at for name, at in place.items()}
        )
        return held

    def red(self, size: tuple[int, int] = SIZE) -> NDArray[np.bool_]:
        picture = render(self.scene.document, 0, size, self.sources)
        return picture[..., 0] > 127

    def test_what_lies_outside_comes_along_when_the_group_is_moved_in(self) -> None:
        self.group(position=[SIZE[0] / 2, 0])
        self.assertTrue(self.red()[:, : SIZE[0] // 2].all())
        self.assertFalse(self.red()[:, SIZE[0] // 2 :].any())

    def test_and_when_it_is_made_smaller_or_turned(self) -> None:
        self.group(size=[0.5, 0.5])
        rows, columns = np.nonzero(self.red())
        self.assertEqual((0, SIZE[0] // 4 - 1), (columns.min(), columns.max()))
        self.assertEqual((80, 239), (rows.min(), rows.max()))
        self.do(kind="adjust", clips=[self.clip("held")], values={"place/turn": 90})
        rows, columns = np.nonzero(self.red())
        # It stood to the left; turned clockwise it stands above.
        self.assertLess(rows.max(), SIZE[1] // 2)
        self.assertTrue(len(rows))

    def test_what_is_drawn_in_an_enlarged_group_is_as_sharp_as_without_it(self) -> None:
        clip = {"kind": "text", "name": "words", "text": "Paper", "size": 24, "width": 170}
        self.do(kind="place", clip={**clip, "length": SECOND}, mode="above")
        values = {"place/size": [2, 2]}
        self.do(kind="adjust", clips=[self.clip("words")], values=values)
        alone = render(self.scene.document, 0, SIZE, self.sources)
        self.do(kind="adjust", clips=[self.clip("words")], values={"place/size": [1, 1]})
        self.do(kind="group", clips=[self.clip("words")], name="held")
        self.do(kind="adjust", clips=[self.clip("held")], values=values)
        grouped = render(self.scene.document, 0, SIZE, self.sources)
        self.assertLess(np.abs(alone.astype(int) - grouped).mean(), 0.1)

    def test_a_group_in_a_group(self) -> None:
        self.group(position=[0, SIZE[1]])
        self.do(kind="group", clips=[self.clip("held")], name="outer")
        values = {"place/position": [SIZE[0], -SIZE[1]]}
        self.do(kind="adjust", clips=[self.clip("outer")], values=values)
        self.assertTrue(self.red().all())

    def test_a_group_that_is_not_moved_is_the_same_picture(self) -> None:
        self.scene.place("blue", 1.0, place={"position": [30, 50], "turn": 20, "size": [1.4, 1.4]})
        plain = render(self.scene.document, 0, SIZE, self.sources)
        self.do(kind="group", clips=[self.clip("blue")], name="held")
        self.assertTrue((plain == render(self.scene.document, 0, SIZE, self.sources)).all())

    def test_on_a_canvas_of_another_shape_it_looks_as_it_did(self) -> None:
        """Pictures in it fill, and fit, the canvas that it was made on; one lies beyond it."""
        self.scene.still("wide", (0, 0, 255, 255), (400, 100))
        self.scene.still("leaf", (0, 255, 0, 255), (400, 100))
        self.scene.place("wide", 1.0, mode="above", at=0, place={"fit": "fill"})
        moved = {"fit": "whole", "position": [40, 30], "turn": 20}
        self.scene.place("leaf", 1.0, mode="above", at=0, place=moved)
        self.scene.place("red", 1.0, mode="above", at=0, place={"position": [-SIZE[0], 0]})
        clips = [clip.id for _, clip in self.scene.document.clips()]
        self.do(kind="group", clips=clips, name="held")
        before = render(self.scene.document, 0, (SIZE[0] * 2, SIZE[1] * 2), self.sources)
        [group] = [clip for _, clip in self.scene.document.clips()]
        copy = {"clip": group.model_dump(), "lane": 0, "of": "picture"}
        canvas = {"width": SIZE[1] * 2, "height": SIZE[0] * 2}
        self.do(kind="remove", clips=[self.clip("held")])
        self.do(kind="set_canvas", canvas=canvas)
        made_on = {"width": SIZE[0], "height": SIZE[1]}
        self.do(kind="paste", copies=[copy], at=0, made_on=made_on)
        after = render(self.scene.document, 0, (SIZE[1] * 2, SIZE[0] * 2), self.sources)
        wide, high = (side * SIZE[0] * 2 // SIZE[1] for side in SIZE)
        left = SIZE[1] - wide // 2
        small = cv2.resize(before, (wide, high), interpolation=cv2.INTER_AREA)
        inner = np.abs(after[:, left + 2 : left + wide - 2].astype(int) - small[:, 2:-2])
        self.assertLess(inner.mean(), 1.5)
        # What lay beyond its sides is seen now.
        self.assertTrue((after[20:-20, 20 : left - 2, 0] > 200).all())
        self.assertTrue((after[:60, left + wide + 2 :, 2] > 200).all())


class ReversedGroupTest(FilmCase):
    def test_its_keys_go_with_its_videos(self) -> None:
        """A video and a square that moves by keys, both through the frames 0 to 59."""
        self.scene.place("a", 2.0)
        keys = {"keys": [{"at": 0, "value": [-60, 0]}, {"at": 60 * FRAME, "value": [60, 0]}]}
        place = {"size": [0.05, 0.05], "position": keys}
        self.scene.place("red", 2.0, mode="above", at=0, place=place)
        self.do(kind="group", clips=[c.id for _, c in self.scene.document.clips()], name="both")
        forwards = [self.picture(frame) for frame in range(60)]
        self.do(kind="reverse", clips=[self.clip("both")])
        for frame in range(60):
            with self.subTest(frame):
                self.assertTrue((forwards[59 - frame] == self.picture(frame)).all())
