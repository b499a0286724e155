from __future__ import annotations

from django.test import TestCase

from kitecore.document.ease import EASES
from kitecore.motion.entrances import entrances
from kitecore.motion.meanwhiles import meanwhiles
from studio.tests.site import SECOND, People

MOTION = {
    "length": SECOND,
    "comes": {"kind": "pop", "length": SECOND // 3},
    "properties": [
        {
            "path": "place/turn",
            "keys": [
                {"at": 0, "value": 0},
                {"at": SECOND, "value": 20, "ease": {"kind": "spring"}},
            ],
        }
    ],
}


class MoveKitTest(People, TestCase):
    def test_the_bench_is_told_of_every_easing_and_motion(self) -> None:
        told = self.call("get", "/kit/move").json()
        self.assertEqual(set(EASES), {one["kind"] for one in told["eases"]})
        for one in told["eases"]:
            self.assertTrue(one["title"] and one["help"], one["kind"])
        self.assertEqual(set(entrances), set(told["entrances"]))
        self.assertEqual(set(meanwhiles), set(told["meanwhiles"]))
        self.assertEqual(
            ["position", "size", "turn", "lean"], [c["name"] for c in told["place"]][:4]
        )
        self.assertEqual(401, self.call("get", "/kit/move", client=self.stranger).status_code)

    def test_a_motion_is_kept_and_given_in_another_length(self) -> None:
        given = {"kind": "motion", "name": "Hop", "content": MOTION}
        self.assertEqual(201, self.call("post", "/kit/presets", given).status_code)
        [kept] = self.call("get", "/kit/presets?kind=motion").json()
        text = {"kind": "text", "name": "words", "length": 2 * SECOND}
        self.edit(kind="place", clip=text)
        clip = self.document()["tracks"][0]["clips"][0]
        answer = self.edit(kind="apply_motion", clips=[clip["id"]], motion=kept["content"])
        self.assertEqual(200, answer.status_code)
        turn = self.document()["tracks"][0]["clips"][0]["place"]["turn"]["keys"]
        self.assertEqual([(0, 0), (2 * SECOND, 20)], [(k["at"], k["value"]) for k in turn])
        self.assertEqual([], self.call("get", "/kit/presets?kind=motion", client=self.other).json())

    def test_what_is_no_motion_is_not_kept(self) -> None:
        bad = {"kind": "motion", "name": "?", "content": {"length": -1}}
        self.assertEqual(422, self.call("post", "/kit/presets", bad).status_code)
