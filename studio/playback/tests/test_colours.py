from __future__ import annotations

import json
import struct
from typing import Any

import numpy as np
import simplejpeg
from django.test import TestCase

from kitecore.colour.cubefile import read_cube
from kitecore.exchange.cdl import read_cdl
from studio.tests.site import People, clip_of, take_of


class ColoursTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.edit(
            kind="place", clip=self.solid("warm", fill={"kind": "plain", "colour": "#bc9c80"})
        )
        self.edit(
            kind="place", clip=self.solid("cold", fill={"kind": "plain", "colour": "#5a6e8c"})
        )
        self.warm, self.cold = (c["id"] for c in self.document()["tracks"][0]["clips"])

    @property
    def base(self) -> str:
        self.project.refresh_from_db()
        return f"/projects/{self.project.id}/revisions/{self.project.head_id}"

    def ask(self, what: str, **given: Any) -> Any:
        return self.call("post", f"{self.base}/{what}", {"clip": self.warm, "frame": 3, **given})

    def grade(self, **values: Any) -> None:
        paths = {path.replace("__", "/"): value for path, value in values.items()}
        self.edit(kind="set_grade", clips=[self.warm], values=paths)

    def test_a_tapped_spot_tells_its_distance_and_balance(self) -> None:
        found = self.ask("neutral", x=500, y=900).json()
        self.assertLess(found["warmth"], -10)
        self.assertLess(found["after"], found["distance"] / 4)
        self.assertEqual([0xBC, 0x9C, 0x80], found["rgb"])
        beside = self.ask("neutral", x=-5, y=9)
        self.assertEqual((422, "bad_input"), (beside.status_code, beside.json()["code"]))
        gone = self.ask("neutral", x=5, y=9, clip="gone")
        self.assertEqual(404, gone.status_code)

    def test_a_tapped_spot_tells_its_hues_before_and_after_the_grade(self) -> None:
        found = self.ask("hue", x=500, y=900).json()
        self.assertEqual(found["graded"], found["original"])
        self.assertTrue(90 < found["original"]["middle"] < 160)
        self.grade(colour__hue=120)
        turned = self.ask("hue", x=500, y=900).json()
        self.assertEqual(found["original"], turned["original"])
        self.assertGreater(abs(turned["graded"]["middle"] - found["original"]["middle"]), 60)
        self.grade(colour__saturation=-100)
        self.assertIsNone(self.ask("hue", x=500, y=900).json()["graded"])

    def test_suggestions_and_matches(self) -> None:
        self.assertLess(self.ask("suggestion").json()["warmth"], 0)
        found = self.ask("match", frames=[3, 9], other=self.cold, other_frames=[36, 40]).json()
        self.assertEqual("cold", found["name"])
        self.assertEqual(
            200, self.edit(kind="set_grade", clips=[self.warm], values={"match": found}).status_code
        )

    def test_grades_are_written_as_files(self) -> None:
        self.grade(colour__saturation=-100, cdl__slope=[1.5, 1, 1])
        path = f"{self.base}/clips/{self.warm}"
        cube = self.call("get", f"{path}/grade.cube?frame=2")
        self.assertIn("attachment", cube["Content-Disposition"])
        grey = read_cube(cube.content).apply(np.array([[0.8, 0.4, 0.2]]))[0]
        self.assertLess(grey.max() - grey.min(), 1e-3)
        self.assertEqual((1.5, 1, 1), read_cdl(self.call("get", f"{path}/grade.cc").content).slope)
        self.assertEqual(404, self.call("get", f"{path}/grade.cube", client=self.other).status_code)

    def test_scopes_come_with_a_tried_still(self) -> None:
        edit = {"kind": "set_grade", "clips": [self.warm], "values": {"levels/black": 60}}
        scopes = {"scopes": ["histogram", "vectorscope"], "box": [0, 0, 0.5, 1]}
        given = {"frame": 0, "long_side": 160, "edits": [edit], "scopes": scopes}
        answer = self.call("post", f"{self.base}/still", given)
        self.assertEqual("application/octet-stream", answer["Content-Type"])
        [length] = struct.unpack("<I", answer.content[:4])
        facts = json.loads(answer.content[4 : 4 + length])
        self.assertEqual(0, facts["clipped"])
        self.assertEqual([[4, 256], [256, 256]], [one["shape"] for one in facts["arrays"]])
        self.assertEqual(b"\xff\xd8", answer.content[4 + length : 6 + length])

    def test_a_matte_can_be_watched(self) -> None:
        take = take_of(self.project, size=(180, 320), frames=10)
        self.edit(kind="place", clip=clip_of(take, 0.2), mode="push", at=0)
        clip = self.document()["tracks"][0]["clips"][0]
        self.edit(kind="add_zone", clips=[clip["id"]], zone={"masks": [{"kind": "edge"}]})
        zone = self.document()["tracks"][0]["clips"][0]["grade"]["zones"][0]["id"]
        still = self.call(
            "post", f"{self.base}/still", {"frame": 0, "long_side": 160, "matte": zone}
        )
        picture = simplejpeg.decode_jpeg(still.content)
        self.assertGreater(picture[20].min(), 250)
        self.assertLess(picture[140].max(), 5)
