"""What edits of grades do."""

from __future__ import annotations

from kitecore.document import Grade, Pictured, dumps, loads
from kitecore.edits.tests.cutcase import CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import NotThere


class GradeEditTest(CutCase):
    def grade(self, name: str) -> Grade | None:
        clip = self.clip(name)
        assert isinstance(clip, Pictured)
        return clip.grade

    def set(self, *names: str, zone: str | None = None, **values: object) -> None:
        paths = {path.replace("__", "/"): value for path, value in values.items()}
        clips = [self.clip(name).id for name in names]
        self.do(kind="set_grade", clips=clips, values=paths, zone=zone)

    def test_values_are_set_by_path_on_all_in_hand(self) -> None:
        self.set("a", "b", light__exposure=0.5, wheels__lift__push=[0.1, 0.2])
        for name in "ab":
            grade = self.grade(name)
            assert grade is not None
            self.assertEqual((0.5, (0.1, 0.2)), (grade.light.exposure, grade.wheels.lift.push))

    def test_a_grade_set_back_is_no_grade(self) -> None:
        self.set("a", light__exposure=0.5)
        self.set("a", light__exposure=0)
        self.assertIsNone(self.grade("a"))

    def test_keys_travel_with_the_clip(self) -> None:
        keys = {"keys": [{"at": 0, "value": 0}, {"at": SECOND, "value": 1}]}
        self.set("a", light__exposure=keys)
        self.do(kind="trim", clip=self.clip("a").id, edge="start", to=SECOND // 2)
        grade = self.grade("a")
        assert grade is not None
        self.assertEqual([-SECOND // 2, SECOND // 2], [k.at for k in grade.light.exposure.keys])
        self.assertEqual(self.document, loads(dumps(self.document)))

    def test_what_does_not_fit_is_refused(self) -> None:
        clip = self.clip("a").id
        for values in (
            {"light/exposure": "much"},
            {"light/speed": 1},
            {"nothing/at/all": 1},
            {"zones": []},
            {"curves/luma": [[1, 0], [0, 1]]},
        ):
            self.refused(kind="set_grade", clips=[clip], values=values)

    def test_zones_are_added_set_ordered_and_removed(self) -> None:
        clip = self.clip("a").id
        for name in ("sky", "skin"):
            self.do(kind="add_zone", clips=[clip], zone={"name": name, "masks": []})
        sky, skin = self.zones()
        values = {"adjust__light__exposure": -1, "brightness__low": 50, "amount": 60}
        self.set("a", zone=sky, **values)
        grade = self.grade("a")
        assert grade is not None
        found = grade.zones[0]
        assert found.brightness is not None
        self.assertEqual(
            (-1, 50, 60), (found.adjust.light.exposure, found.brightness.low, found.amount)
        )
        self.do(kind="order_zone", clips=[clip], zone=sky, to=1)
        self.assertEqual([skin, sky], self.zones())
        self.do(kind="remove_zone", clips=[clip], zone=skin)
        self.assertEqual([sky], self.zones())
        with self.assertRaises(NotThere):
            self.set("a", zone=skin, amount=1)

    def zones(self) -> list[str]:
        grade = self.grade("a")
        assert grade is not None
        return [zone.id for zone in grade.zones]

    def test_parts_of_one_clip_share_their_zones(self) -> None:
        clip = self.clip("a").id
        self.do(kind="add_zone", clips=[clip], zone={"name": "sky"})
        [sky] = self.zones()
        self.do(kind="split", clips=[clip], at=2 * SECOND)
        parts = [one.id for one in self.row()[:2]]
        self.do(kind="set_grade", clips=parts, values={"amount": 40}, zone=sky)
        self.assertEqual([40, 40], [one.grade.zones[0].amount for one in self.row()[:2]])

    def test_a_preset_replaces_the_grade(self) -> None:
        self.set("a", light__exposure=0.5)
        clip = self.clip("a").id
        self.do(kind="replace_grade", clips=[clip], grade={"colour": {"hue": 20}})
        self.assertEqual(Grade.model_validate({"colour": {"hue": 20}}), self.grade("a"))
        self.do(kind="replace_grade", clips=[clip])
        self.assertIsNone(self.grade("a"))


class SettingsTest(GradeEditTest):
    def copy(self, *groups: str) -> None:
        source = self.clip("a").model_dump(mode="json")
        self.do(
            kind="apply_settings", clips=[self.clip("b").id], source=source, groups=list(groups)
        )

    def test_only_the_chosen_groups_are_copied(self) -> None:
        self.set("a", light__exposure=1)
        values = {"opacity": 0.5, "gain": -6, "effects": [{"kind": "soft_blur", "id": "e"}]}
        self.do(kind="adjust", clips=[self.clip("a").id], values=values)
        self.copy("grade")
        b = self.clip("b")
        self.assertEqual((1.0, 0.0, ()), (b.opacity, b.gain, b.effects))
        self.assertEqual(self.grade("a"), self.grade("b"))
        self.copy("opacity", "sound", "effects")
        b = self.clip("b")
        self.assertEqual((0.5, -6, "e"), (b.opacity, b.gain, b.effects[0].id))

    def test_place_size_opacity_blend_and_clipping_are_apart(self) -> None:
        values = {
            "place/position": [9, 8], "place/size": [2, 2], "place/turn": 30, "opacity": 0.5,
            "blend": "screen", "clipped": "luma",
        }  # fmt: skip
        self.do(kind="adjust", clips=[self.clip("a").id], values=values)
        plain = self.clip("b")
        self.copy("position")
        moved = self.clip("b")
        place = plain.place.model_copy(update={"position": (9.0, 8.0)})
        self.assertEqual(plain.model_copy(update={"place": place}), moved)
        self.copy("size")
        self.assertEqual(self.clip("a").place, self.clip("b").place)
        self.assertEqual((1.0, "normal", ""), self._laid())
        for group, laid in (
            ("opacity", (0.5, "normal", "")),
            ("blend", (0.5, "screen", "")),
            ("clipping", (0.5, "screen", "luma")),
        ):
            self.copy(group)
            self.assertEqual(laid, self._laid())

    def _laid(self) -> tuple[object, str, str]:
        clip = self.clip("b")
        return clip.opacity, clip.blend, clip.clipped

    def test_speed_is_run_anew_and_what_follows_moves(self) -> None:
        self.do(kind="set_speed", clips=[self.clip("a").id], factor=2)
        self.copy("speed")
        self.assertEqual([("a", 0, 2), ("b", 2, 3.5)], self.times())

    def test_what_has_none_of_it_refuses(self) -> None:
        sound = {"kind": "sound", "media": "s", "length": SECOND, "source_length": SECOND}
        self.do(kind="place", clip={**sound, "name": "s"}, mode="above", at=0)
        source = self.clip("a").model_dump(mode="json")
        clip = self.clip("s").id
        refusal = self.refused(kind="apply_settings", clips=[clip], source=source, groups=["grade"])
        self.assertIn("none of these", str(refusal))
        self.refused(kind="set_grade", clips=[clip], values={"light/exposure": 1})
