"""What is made of sources of 10 bits keeps them, whatever is done on the way."""

from __future__ import annotations

from typing import Any

import numpy as np

from kitecore.colour.chain import graded
from kitecore.colour.looks import shipped
from kitecore.document import Grade
from kitecore.document.grade import Light
from kitecore.picture.tests.test_blends import MIXED
from kitecore.render.deep import render_deep, render_deep_planes, render_exact
from kitecore.render.tests.scene import RAMP_FIRST, SECOND, SIZE
from kitecore.render.tests.test_move import MoveCase

ROWS = np.arange(RAMP_FIRST, RAMP_FIRST + SIZE[1])
RAMP = (ROWS - 64) / 876
"""Of the take, 0..1, from its first row to its last."""
WHOLE = SECOND // 5
LEVEL = 1 / 255


class TenBitsTest(MoveCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.ramp("ramp")
        self.scene.place("ramp", 0.2)

    def above(self, kind: str, **more: Any) -> None:
        clip = {"kind": kind, "name": kind, "length": WHOLE, **more}
        self.scene.do(kind="place", clip=clip, mode="above", at=0)

    def adjust(self, name: str, **values: Any) -> None:
        self.scene.do(kind="adjust", clips=[self.named(name)], values=values)

    def named(self, name: str) -> str:
        return next(clip.id for _, clip in self.scene.document.clips() if clip.name == name)

    def column(self, x: int = 90, tick: int = 0) -> np.ndarray:
        """Green of a column, 0..1; nothing but the mean of several pictures can give it."""
        self.assertIsNone(render_exact(self.scene.document, tick, SIZE, self.sources))
        return render_deep(self.scene.document, tick, SIZE, self.sources)[:, x, 1] / 65535

    def assert_as(self, wanted: np.ndarray, found: np.ndarray, share: float = 0.97) -> None:
        """As wanted within a third of a level of 8 bits in the mean, and as many levels."""
        self.assertLess(np.abs(found - wanted).mean(), LEVEL / 3)
        self.assertLess(np.abs(found - wanted).max(), LEVEL)
        levels = len(np.unique(np.rint(wanted * 1023)))
        self.assertGreaterEqual(len(np.unique(np.rint(found * 1023))), share * levels)

    def test_every_blend_mode(self) -> None:
        self.above("solid", fill={"kind": "plain", "colour": "#c8c8c8"})
        for name in sorted(MIXED.keys() - {"normal"}):
            with self.subTest(name):
                self.adjust("solid", blend=name)
                grey = np.full((len(RAMP), 3), 200 / 255)
                wanted = np.clip(MIXED[name](np.repeat(RAMP[:, None], 3, axis=1), grey), 0, 1)
                self.assert_as(wanted[:, 1], self.column(), 0.8)

    def test_an_adjustment(self) -> None:
        grade = Grade(light=Light(exposure=0.4))
        self.above("adjustment", grade=grade.model_dump())
        self.assert_as(
            graded(np.repeat(RAMP[:, None], 3, axis=1), grade, shipped)[:, 1], self.column()
        )

    def test_a_mask(self) -> None:
        self.adjust("ramp", masks=[{"kind": "rectangle", "size": [0.2, 2.0]}])
        self.assert_as(RAMP, self.column())
        self.assertFalse(self.column(2).any())

    def test_a_key(self) -> None:
        self.adjust("ramp", key={"kind": "chroma", "colour": "#00ff00"})
        self.assert_as(RAMP, self.column())

    def test_strokes(self) -> None:
        for kind in ("clone_stroke", "heal_stroke", "soften_stroke"):
            with self.subTest(kind):
                drawn = {"points": [[0, -0.6], [0, 0.6]], "width": 0.2, "softness": 0.0}
                self.adjust("ramp", strokes=[{"kind": kind, **drawn}])
                self.assert_as(RAMP, self.column(), 0.9)

    def test_its_place_on_the_canvas(self) -> None:
        self.adjust("ramp", **{"place/position": [20, 0]})
        self.assert_as(RAMP, self.column())

    def test_a_transition(self) -> None:
        self.scene.do(kind="remove", clips=[self.scene.document.main.clips[0].id])
        for _ in range(2):
            self.scene.place("ramp", 2 / 30, into=2 / 30)
        first, second = self.scene.document.main.clips
        self.scene.do(
            kind="set_transition",
            clip=second.id,
            transition={"kind": "dissolve", "length": SECOND // 15},
        )
        self.assert_as(RAMP, self.column(tick=first.end))

    def test_in_a_group_with_a_text_above(self) -> None:
        self.above("text", text="W", blend="multiply", place={"position": [-60, 0]})
        ids = [clip.id for _, clip in self.scene.document.clips()]
        self.scene.do(kind="group", clips=ids, name="both")
        self.assert_as(RAMP, self.column(175))

    def test_a_steep_grade_under_a_blend(self) -> None:
        self.adjust("ramp", grade={"light": {"exposure": 1.0}})
        self.above("solid", fill={"kind": "plain", "colour": "#ffffff"}, blend="multiply")
        found = self.column()
        inner = found[(found > 0.02) & (found < 0.98)]
        # Through 8 bits its levels would lie two and more apart.
        self.assertLess(np.diff(inner).max(), 1.2 * LEVEL)
        self.assertGreater(len(np.unique(inner)), 0.9 * len(inner))

    def assert_runs(self, low: float, high: float) -> None:
        """From one grey (of 255) to another, from the first row to the last, as finely as in 10 bits."""
        wanted = low + (high - low) * (np.arange(SIZE[1]) + 0.5) / SIZE[1]
        self.assert_as(wanted / 255, self.column())

    def test_gradients_that_are_drawn(self) -> None:
        stops = [{"at": 0, "colour": "#202020"}, {"at": 1, "colour": "#484848"}]
        fill = {"kind": "straight", "begin": [0, -160], "end": [0, 160], "stops": stops}
        self.above("solid", fill=fill)
        self.assert_runs(32, 72)
        form = {"kind": "rectangle", "size": [200, 400]}
        self.above("shape", form=form, fill=fill, place={"position": [3, 0]})
        self.assert_runs(32, 72)
        self.scene.do(kind="group", clips=[self.named("shape")], name="both")
        self.assert_runs(32, 72)

    def test_what_has_8_bits_is_drawn_once(self) -> None:
        self.scene.video("eight", frames=6)
        self.scene.place("eight", 0.2, mode="above", at=0, blend="screen")
        self.adjust("ramp", opacity=0.0)
        self.column()
        self.assertEqual(0.5, self.sources.rounding)
        planes = render_deep_planes(self.scene.document, 0, SIZE, self.sources)
        self.assertEqual("yuv420p10le", planes.format.name)
