"""Named steps: back to any, on from there, nothing lost."""

from __future__ import annotations

from django.test import TestCase, TransactionTestCase
from pydantic import TypeAdapter

from kitecore.edits import Edit
from studio.projects import history
from studio.projects.facts import facts_of
from studio.projects.models import Project, Revision
from studio.tests.site import SECOND, People, take_of


class HistoryTest(People, TestCase):
    def steps(self) -> list[dict[str, object]]:
        told: list[dict[str, object]] = self.call(
            "get", f"/projects/{self.project.id}/history"
        ).json()
        return told

    def go(self, revision: object) -> dict[str, object]:
        self.project.refresh_from_db()
        body = {"based_on": self.project.head_id, "revision": revision}
        answer = self.call("post", f"/projects/{self.project.id}/go", body)
        self.assertEqual(200, answer.status_code, answer.content)
        state: dict[str, object] = answer.json()
        return state

    def names(self) -> list[str]:
        return [clip["name"] for clip in self.document()["tracks"][0]["clips"]]

    def test_steps_of_before_a_field_was_there_go_on_being_read(self) -> None:
        media = take_of(self.project, frames=90).id.hex
        clip = {"kind": "video", "name": "old", "media": media, "length": SECOND}
        made = [{**clip, "source_length": 3 * SECOND}, self.solid("s")]
        for one in made:
            history.apply_edit(
                *self.head(), TypeAdapter(Edit).validate_python({"kind": "place", "clip": one})
            )
        for step in Revision.objects.filter(number__in=[1, 2]):
            # As a version without trackers and pan kept it.
            for operation in step.forward:
                for name in ("trackers", "pan"):
                    operation["value"].pop(name, None)
            step.save()
        history._documents.clear()
        video = history.document_at(self.head()[0].head).main.clips[0]  # type: ignore[arg-type]
        tracker = {
            "views": [{"at": 0, "corners": [[0, 0], [0.1, 0], [0.1, 0.1], [0, 0.1]]}],
            "first": 0,
            "last": SECOND,
        }
        add = {"kind": "add_item", "clips": [video.id], "list": "trackers", "item": tracker}
        louder = {"kind": "adjust", "clips": [video.id], "values": {"pan": 0.5}}
        for change in (add, louder):
            history.apply_edit(*self.head(), TypeAdapter(Edit).validate_python(change))
        history._documents.clear()
        [video, _] = history.document_at(self.head()[0].head).main.clips  # type: ignore[arg-type]
        self.assertEqual((1, 0.5), (len(video.trackers), video.pan))  # type: ignore[attr-defined]

    def head(self) -> tuple[Project, int]:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        assert project.head_id is not None
        return project, project.head_id

    def test_a_branch_that_was_left_can_be_gone_back_to(self) -> None:
        for name in ("a", "b", "c"):
            self.edit(kind="place", clip=self.solid(name))
        start, first, second, third = (step["revision"] for step in self.steps())
        self.go(first)
        self.assertEqual(["a"], self.names())
        self.edit(kind="place", clip=self.solid("d"))
        self.assertEqual(["a", "d"], self.names())
        steps = {step["revision"]: step for step in self.steps()}
        self.assertEqual(
            [True, True, False, False], [steps[r]["on_path"] for r in (start, first, second, third)]
        )
        self.go(third)
        self.assertEqual(["a", "b", "c"], self.names())
        steps = {step["revision"]: step["on_path"] for step in self.steps()}
        self.assertEqual([True] * 4, [steps[r] for r in (start, first, second, third)])

    def test_do_again_follows_the_way_that_was_last_gone(self) -> None:
        for name in ("a", "b"):
            self.edit(kind="place", clip=self.solid(name))
        last = self.steps()[-1]["revision"]
        self.go(self.steps()[0]["revision"])
        self.edit(kind="place", clip=self.solid("other"))
        self.go(last)
        self.go(self.steps()[0]["revision"])
        for _ in range(2):
            self.project.refresh_from_db()
            body = {"based_on": self.project.head_id}
            self.call("post", f"/projects/{self.project.id}/redo", body)
        self.assertEqual(["a", "b"], self.names())

    def test_a_stale_page_is_told_and_others_see_nothing(self) -> None:
        self.edit(kind="place", clip=self.solid("a"))
        first = self.steps()[0]["revision"]
        body = {"based_on": first, "revision": first}
        path = f"/projects/{self.project.id}"
        stale = self.call("post", f"{path}/go", body)
        self.assertEqual(
            (409, "a"),
            (stale.status_code, stale.json()["document"]["tracks"][0]["clips"][0]["name"]),
        )
        for method, end, data in (("get", "history", None), ("post", "go", body)):
            answer = self.call(method, f"{path}/{end}", data, client=self.other)
            self.assertEqual(404, answer.status_code)
        foreign = self.call("post", "/projects", {"name": "Theirs"}, client=self.other).json()
        self.project.refresh_from_db()
        body = {"based_on": self.project.head_id, "revision": foreign["revision"]}
        self.assertEqual(404, self.call("post", f"{path}/go", body).status_code)


class SnapshotTest(People, TransactionTestCase):
    def test_every_twentieth_is_kept_whole_after_its_answer_and_all_are_rebuilt(self) -> None:
        for number in range(23):
            self.edit(kind="place", clip=self.solid(f"s{number}"))
        kept = self.project.revisions.exclude(snapshot=None).values_list("number", flat=True)
        self.assertEqual([0, 20], sorted(kept))
        for revision in self.project.revisions.all():
            history._documents.clear()
            rebuilt = history.document_at(revision)
            self.assertEqual(revision.number, len(rebuilt.main.clips))
            self.assertEqual(facts_of(rebuilt), history.facts_at(revision))

    def test_facts_are_told_on_from_step_to_step(self) -> None:
        for number in range(3):
            self.edit(kind="place", clip=self.solid(f"s{number}"))
        ids = [clip["id"] for clip in self.document()["tracks"][0]["clips"]]
        self.edit(kind="group", clips=ids[:2], name="Two")
        self.edit(kind="remove", clips=[ids[2]])
        head = self.project.revisions.latest("number")
        self.assertEqual(facts_of(history.document_at(head)), history.facts_at(head))
