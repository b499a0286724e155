"""A table of colours among a layer's effects."""

from __future__ import annotations

from typing import Any

import av
import numpy as np

from kitecore.colour.looks import SHIPPED
from kitecore.document import Grade
from kitecore.document.effects import Tabled, effect_kinds
from kitecore.document.grade import Lut
from kitecore.errors import NotThere
from kitecore.render.sampling import effect_sample
from kitecore.render.tests.scene import SECOND, SIZE
from kitecore.render.tests.test_move import MoveCase

LOOK = "tin-sky"


class LookEffectTest(MoveCase):
    def setUp(self) -> None:
        super().setUp()
        across, down = np.meshgrid(np.linspace(0, 255, SIZE[0]), np.linspace(0, 255, SIZE[1]))
        picture = np.dstack([across, down, 255 - across]).astype(np.uint8)
        self.scene.video("take", frames=6, draw=lambda _: av.VideoFrame.from_ndarray(picture))
        self.scene.place("take", 0.2)
        self.clip = self.scene.document.main.clips[0].id

    def shown(self, **values: Any) -> np.ndarray:
        self.scene.do(kind="adjust", clips=[self.clip], values=values)
        return self.shot(0).astype(int)

    def by(self, *effects: dict[str, Any]) -> np.ndarray:
        return self.shown(effects=list(effects))

    def test_each_begins_with_a_look_that_there_is(self) -> None:
        for kind in effect_kinds.values():
            if issubclass(kind, Tabled):
                self.assertIn(kind().look, SHIPPED)  # type: ignore[call-arg]

    def test_it_does_what_the_look_of_a_grade_does(self) -> None:
        plain, found = self.shown(), self.by({"kind": "look", "look": LOOK})
        half = self.by({"kind": "look", "look": LOOK, "mix": 0.5})
        wanted = self.shown(effects=[], grade=Grade(lut=Lut(look=LOOK)).model_dump())
        self.assertGreater(np.abs(found - plain).mean(), 2)
        self.assertLess(np.abs(found - wanted).mean(), 0.5)
        self.assertLess(np.abs(half - (plain + found) / 2).max(), 1.1)

    def test_it_stands_where_it_is_among_others(self) -> None:
        look, inverted = {"kind": "look", "look": LOOK}, {"kind": "invert"}
        self.assertGreater(np.abs(self.by(look, inverted) - self.by(inverted, look)).mean(), 2)

    def test_over_all_that_lies_below_it_is_the_same(self) -> None:
        wanted = self.by({"kind": "look", "look": LOOK})
        self.by()
        clip = {"kind": "adjustment", "name": "all", "length": SECOND // 5}
        clip["effects"] = [{"kind": "look", "look": LOOK}]
        self.scene.do(kind="place", clip=clip, mode="above", at=0)
        self.assertLess(np.abs(self.shot(0).astype(int) - wanted).max(), 2)

    def test_what_is_half_clear_stays_so(self) -> None:
        self.scene.still("mist", (90, 40, 20, 128), SIZE)
        self.scene.place("mist", 0.2, mode="above", at=0)
        self.clip = next(clip.id for _, clip in self.scene.document.clips() if clip.name == "mist")
        below = self.shown(opacity=0.0)
        whole = self.shown(opacity=1.0, effects=[{"kind": "look", "look": LOOK}])
        self.scene.do(kind="adjust", clips=[self.clip], values={"opacity": 1.0})
        mist = np.array([[[90, 40, 20, 255]]], np.uint8)
        through = self.sources.tables.of_look(LOOK)(mist)[0, 0].astype(int)
        wanted = below * (127 / 255) + through * (128 / 255)
        self.assertLess(np.abs(whole - wanted)[..., :3].max(), 3)

    def test_without_a_look_it_does_nothing_and_one_that_is_gone_is_told(self) -> None:
        plain = self.by()
        np.testing.assert_array_equal(plain, self.by({"kind": "look", "look": ""}))
        with self.assertRaisesRegex(NotThere, "look"):
            self.by({"kind": "look", "look": "never-made"})

    def test_its_sample_moves(self) -> None:
        plain = effect_sample(self.scene.document, 0, self.clip, "invert", self.sources)
        toned = effect_sample(self.scene.document, 0, self.clip, "look", self.sources)
        self.assertNotEqual(plain, toned)
