"""Shelves, marks, uses, samples, lost files: what a library is for."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

from django.test import TestCase, override_settings
from PIL import Image

from kitecore.media.tests.material import read_number
from studio.library.models import Take
from studio.tests.site import SECOND, People, Uploader, clip_of, take_of, work_off


class LibraryTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project)
        self.path = f"/takes/{self.take.id}"

    def test_stars_colour_shelf_and_parts_are_kept(self) -> None:
        base = f"/projects/{self.project.id}/shelves"
        shelf = self.call("post", base, {"name": "Sky"}).json()
        self.assertEqual(422, self.call("post", base, {"name": "Sky"}).status_code)
        parts = [{"name": "up", "mark_in": 0, "mark_out": SECOND}]
        told = {"stars": 4, "tag": "sea", "shelf": shelf["id"], "ranges": parts}
        kept = self.call("patch", self.path, told).json()
        self.assertEqual(told, {key: kept[key] for key in told})
        self.assertEqual(204, self.call("delete", f"{base}/{shelf['id']}").status_code)
        [listed] = self.call("get", f"/projects/{self.project.id}/takes").json()
        self.assertEqual((None, 4), (listed["shelf"], listed["stars"]))

    def test_the_file_comes_back_as_it_was_brought_in(self) -> None:
        answer = self.mine.get(f"/api{self.path}/original")
        self.assertIn('filename="count.mp4"', answer["Content-Disposition"])
        whole = b"".join(answer.streaming_content)  # type: ignore[attr-defined]
        self.assertEqual(self.take.folder.original.read_bytes(), whole)
        self.assertEqual(404, self.other.get(f"/api{self.path}/original").status_code)
        self.take.folder.original.unlink()
        self.assertEqual(404, self.mine.get(f"/api{self.path}/original").status_code)

    def test_nonsense_is_refused_and_changes_nothing(self) -> None:
        backwards = [{"name": "", "mark_in": SECOND, "mark_out": 0}]
        for change in ({"stars": 6}, {"tag": "plaid"}, {"ranges": backwards}):
            self.assertEqual(422, self.call("patch", self.path, change).status_code, change)
        self.assertEqual(404, self.call("patch", self.path, {"shelf": 999}).status_code)
        self.take.refresh_from_db()
        self.assertEqual((0, "", []), (self.take.stars, self.take.tag, self.take.ranges))

    def test_a_video_is_taken_in_anew_as_two_fields_and_back(self) -> None:
        path = f"{self.path}/fields"
        self.assertEqual(404, self.call("put", path, {"two_fields": True}, self.other).status_code)
        for two_fields in (True, False):
            told = self.call("put", path, {"two_fields": two_fields}).json()
            self.assertEqual("waiting", told["state"])
            self.assertEqual(422, self.call("put", path, {"two_fields": True}).status_code)
            work_off()
            self.take.refresh_from_db()
            self.assertEqual("ready", self.take.state)
            self.assertEqual(two_fields, self.take.facts["picture"]["interlaced"])
            self.assertTrue(self.take.folder.proxy.exists())

    def test_shelves_of_others_are_not_there(self) -> None:
        base = f"/projects/{self.project.id}/shelves"
        shelf = self.call("post", base, {"name": "Sky"}).json()["id"]
        for method, path in (("get", base), ("delete", f"{base}/{shelf}")):
            self.assertEqual(404, self.call(method, path, client=self.other).status_code)

    def test_uses_count_clips_in_groups_too(self) -> None:
        self.edit(kind="place", clip=clip_of(self.take))
        self.edit(kind="place", clip=clip_of(self.take))
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        self.edit(kind="group", clips=[clip])
        [use] = self.call("get", f"{self.path}/uses").json()
        self.assertEqual(("Kites", 2), (use["name"], use["clips"]))
        self.assertEqual(422, self.call("delete", self.path).status_code)

    def test_a_copy_in_another_project_brings_its_take_along(self) -> None:
        made = self.call("post", "/projects", {"name": "Second"}).json()
        copy = {"clip": clip_of(self.take) | {"id": "old"}, "lane": 0, "of": "main"}
        body = {
            "based_on": made["revision"],
            "edit": {"kind": "paste", "copies": [copy], "at": 0},
        }
        path = f"/projects/{made['id']}"
        self.assertEqual(200, self.call("post", f"{path}/edits", body).status_code)
        [take] = self.call("get", f"{path}/takes").json()
        self.assertEqual(str(self.take.id), take["id"])
        foreign = self.call("post", "/projects", {"name": "Theirs"}, client=self.other).json()
        body["based_on"] = foreign["revision"]
        path = f"/projects/{foreign['id']}/edits"
        self.assertEqual(404, self.call("post", path, body, client=self.other).status_code)


class LostFileTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project)
        self.film = self.take.folder.original.read_bytes()
        self.take.folder.original.unlink()

    def send(self, data: bytes) -> Take:
        uploader = Uploader(self.mine)
        told = uploader.create(self.project, len(data), replaces=str(self.take.id))
        uploader.send(told["Location"], 0, data)
        return Take.objects.exclude(pk=self.take.pk).get()

    def listed(self) -> list[dict[str, object]]:
        takes: list[dict[str, object]] = self.call(
            "get", f"/projects/{self.project.id}/takes"
        ).json()
        return takes

    def test_the_same_file_takes_its_place_again(self) -> None:
        self.assertTrue(self.listed()[0]["missing"])
        self.send(self.film)
        self.assertEqual(self.film, self.take.folder.original.read_bytes())
        [take] = self.listed()
        self.assertFalse(take["missing"])

    def test_another_file_is_refused_and_the_clips_keep_waiting(self) -> None:
        upload = self.send(self.film[:-1] + b"x")
        self.assertEqual("refused", upload.state)
        self.assertIn("is not the file", upload.problem["message"])
        self.assertFalse(self.take.folder.original.exists())

    def test_nobody_replaces_a_file_that_is_there(self) -> None:
        self.take.folder.original.write_bytes(self.film)
        answer = Uploader(self.mine).create(self.project, 100, replaces=str(self.take.id))
        self.assertEqual(422, answer.status_code)


class SampleTest(People, TestCase):
    def test_samples_come_in_in_the_order_given(self) -> None:
        with (
            TemporaryDirectory() as folder,
            override_settings(DATA_DIR=Path(folder), CACHE_DIR=Path(folder) / "cache"),
        ):
            shelf = Path(folder) / "demo"
            shelf.mkdir()
            for name in ("a.png", "b.png"):
                Image.new("RGBA", (60, 40), (200, 90, 60, 255)).save(shelf / name)
            (shelf / "secret.txt").write_text("not media")
            self.assertEqual(
                ["a.png", "b.png"], [s["name"] for s in self.call("get", "/samples").json()]
            )
            picture = self.call("get", "/samples/a.png/picture")
            self.assertTrue(b"".join(picture.streaming_content).startswith(b"\xff\xd8"))
            self.assertEqual(404, self.call("get", "/samples/secret.txt/picture").status_code)
            self.assertEqual(404, self.call("get", "/samples/..%2Fsecret.txt/picture").status_code)
            path = f"/projects/{self.project.id}/samples"
            made = self.call("post", path, {"names": ["b.png", "a.png"]}).json()
            self.assertEqual(["b.png", "a.png"], [take["name"] for take in made])
            self.assertEqual(404, self.call("post", path, {"names": ["c.png"]}).status_code)


class KeptFrameTest(People, TestCase):
    def test_a_frame_becomes_a_still_without_loss(self) -> None:
        take = take_of(self.project)
        self.edit(kind="place", clip=clip_of(take))
        self.edit(kind="set_canvas", canvas={"width": 180, "height": 320})
        self.project.refresh_from_db()
        path = f"/projects/{self.project.id}/revisions/{self.project.head_id}/frames/17/keep"
        kept = self.call("post", path)
        self.assertEqual(201, kept.status_code)
        still = Take.objects.get(pk=kept.json()["id"])
        work_off()
        still.refresh_from_db()
        self.assertEqual(("still", 180), (still.facts["kind"], still.facts["picture"]["width"]))
        import numpy as np

        self.assertEqual(17, read_number(np.asarray(Image.open(still.folder.original))))
        self.assertEqual(404, self.call("post", path, client=self.other).status_code)
