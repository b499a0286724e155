from __future__ import annotations

import io
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TestCase

from kitecore.colour.cube import Cube
from kitecore.colour.cubefile import write_cube
from kitecore.colour.lattice import lattice
from studio.kit.models import Look, look_folder
from studio.tests.site import People

CUBE = write_cube(Cube((1 - lattice(3)).reshape(3, 3, 3, 3), title="Turned round")).encode()


class KitTest(People, TestCase):
    def send(self, path: str, name: str, data: bytes, **more: Any) -> Any:
        file = SimpleUploadedFile(name, io.BytesIO(data).read())
        return (more.get("client") or self.mine).post(f"/api{path}", {"file": file})

    def looks(self, client: Any = None) -> list[dict[str, Any]]:
        return self.call("get", "/kit/looks", client=client).json()

    def test_our_looks_are_there_for_everybody(self) -> None:
        titles = {look["title"] for look in self.looks()}
        self.assertEqual(6, len(titles))
        self.assertIn("Two papers", titles)
        self.assertEqual(401, self.call("get", "/kit/looks", client=self.stranger).status_code)

    def test_a_look_is_brought_in_used_and_taken_out(self) -> None:
        answer = self.send("/kit/looks", "turned.cube", CUBE)
        self.assertEqual(201, answer.status_code)
        name = answer.json()["name"]
        self.assertEqual("Turned round", answer.json()["title"])
        self.assertIn(name, [look["name"] for look in self.looks()])
        self.assertNotIn(name, [look["name"] for look in self.looks(self.other)])
        self.edit(kind="place", clip=self.solid())
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        used = self.edit(kind="set_grade", clips=[clip], values={"lut/look": name})
        self.assertEqual(200, used.status_code)
        self.assertEqual(
            404, self.call("delete", f"/kit/looks/{name}", client=self.other).status_code
        )
        self.assertEqual(204, self.call("delete", f"/kit/looks/{name}").status_code)
        self.assertNotIn(name, [look["name"] for look in self.looks()])
        # Grades that use it keep it.
        self.assertAlmostEqual(1, float(look_folder().find(name).values[0, 0, 0, 0]))

    def test_somebody_elses_look_cannot_be_used(self) -> None:
        theirs = self.send("/kit/looks", "x.cube", CUBE, client=self.other).json()["name"]
        self.edit(kind="place", clip=self.solid())
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        for name in (theirs, "../../etc/passwd", "0" * 32):
            answer = self.edit(kind="set_grade", clips=[clip], values={"lut/look": name})
            self.assertEqual(404, answer.status_code)

    def test_a_wrong_file_names_line_and_reason_and_leaves_nothing(self) -> None:
        answer = self.send("/kit/looks", "x.cube", CUBE.replace(b"0.500000", b"half", 1))
        self.assertEqual(422, answer.status_code)
        self.assertEqual("bad_cube", answer.json()["code"])
        self.assertRegex(answer.json()["message"], r"“x.cube”: Line \d+: .*half")
        self.assertFalse(Look.objects.exists())

    def test_presets_are_kept_renamed_and_removed(self) -> None:
        content = {"light": {"exposure": 0.5}}
        given = {"kind": "grade", "name": "Bright paper", "content": content}
        kept = self.call("post", "/kit/presets", given)
        self.assertEqual(201, kept.status_code)
        self.assertEqual(0.5, kept.json()["content"]["light"]["exposure"])
        path = f"/kit/presets/{kept.json()['id']}"
        self.assertEqual(
            404, self.call("patch", path, {"name": "x"}, client=self.other).status_code
        )
        self.assertEqual("Paler", self.call("patch", path, {"name": "Paler"}).json()["name"])
        listed = self.call("get", "/kit/presets?kind=grade").json()
        self.assertEqual(["Paler"], [one["name"] for one in listed])
        self.assertEqual([], self.call("get", "/kit/presets?kind=grade", client=self.other).json())
        self.assertEqual(204, self.call("delete", path).status_code)
        wrong = {**given, "content": {"light": {"exposure": "much"}}}
        self.assertEqual(422, self.call("post", "/kit/presets", wrong).status_code)

    def test_a_place_of_ones_own_is_kept_without_what_belongs_to_a_project(self) -> None:
        settings = {"format": "webm", "long_side": 720, "first": 5, "last": 9, "cover": 7}
        given = {
            "kind": "place",
            "name": "Wall",
            "content": {"like": "square", "settings": settings},
        }
        kept = self.call("post", "/kit/presets", given).json()["content"]
        self.assertEqual("square", kept["like"])
        told = {name: kept["settings"][name] for name in settings}
        clean = {"format": "webm", "long_side": 720, "first": 0, "last": 0, "cover": None}
        self.assertEqual(clean, told)
        for wrong in ({"like": "nowhere"}, {"settings": {"format": "tape"}}):
            content = {"like": "square", "settings": settings, **wrong}
            answer = self.call("post", "/kit/presets", {**given, "content": content})
            self.assertEqual(422, answer.status_code)

    def test_a_cdl_is_read(self) -> None:
        text = b"<ColorCorrection><SOPNode><Slope>1.5 1 1</Slope></SOPNode></ColorCorrection>"
        self.assertEqual([1.5, 1, 1], self.send("/kit/cdl", "x.cc", text).json()["slope"])
        self.assertEqual(422, self.send("/kit/cdl", "x.cc", b"nothing").status_code)

    def test_the_bench_is_told_of_every_stage(self) -> None:
        told = self.call("get", "/kit/grade").json()
        stages = {stage["name"]: stage for stage in told["stages"]}
        exposure = stages["light"]["controls"][0]
        self.assertEqual(
            ("exposure", "stops", -4, 4),
            tuple(exposure[key] for key in ("name", "unit", "low", "high")),
        )
        self.assertEqual(6, len(told["targets"]))
        self.assertIn("acescct", [one["name"] for one in told["codings"]])
