from __future__ import annotations

from typing import Any
from unittest.mock import patch

import jsonpatch
from django.test import Client, TestCase

from kitecore.document import dump, empty_document
from studio.projects import history
from studio.projects.models import Project, Revision
from studio.tests.site import SECOND, People, clip_of, take_of


class ProjectTest(People, TestCase):
    def test_make_list_rename_delete(self) -> None:
        body = {"name": "Second", "canvas": {"width": 1920, "height": 1080}, "rate": {"num": 25}}
        made = self.call("post", "/projects", body)
        self.assertEqual(201, made.status_code)
        names = [card["name"] for card in self.call("get", "/projects").json()]
        self.assertEqual(["Second", "Kites"], names)
        path = f"/projects/{made.json()['id']}"
        self.assertEqual("New", self.call("patch", path, {"name": "New"}).json()["name"])
        self.assertEqual(204, self.call("delete", path).status_code)
        self.assertEqual(404, self.call("get", path).status_code)

    def test_a_copy_goes_its_own_way_with_the_same_takes(self) -> None:
        take = take_of(self.project)
        self.edit(kind="place", clip=clip_of(take, 1.0))
        answer = self.call("post", f"/projects/{self.project.id}/copy")
        self.assertEqual(201, answer.status_code)
        copy = answer.json()
        self.assertEqual("Kites (copy)", copy["name"])
        copied = self.state_of(copy["id"])["document"]["tracks"]
        self.assertEqual(self.document()["tracks"], copied)
        self.assertEqual(
            [take.name],
            [t["name"] for t in self.call("get", f"/projects/{copy['id']}/takes").json()],
        )
        self.call("delete", f"/projects/{self.project.id}")
        listed = self.call("get", f"/projects/{copy['id']}/takes").json()
        self.assertEqual([take.name], [one["name"] for one in listed])

    def state_of(self, id: str) -> Any:
        return self.call("get", f"/projects/{id}").json()

    def test_the_list_opens_no_document(self) -> None:
        take = take_of(self.project)
        self.edit(kind="place", clip=clip_of(take))
        self.edit(kind="place", clip=clip_of(take, 0.5))
        with patch.object(history, "document_at", side_effect=AssertionError("opened")):
            [card] = self.call("get", "/projects").json()
            [use] = self.call("get", f"/takes/{take.id}/uses").json()
            self.assertEqual(422, self.call("delete", f"/takes/{take.id}").status_code)
        self.assertEqual((round(1.5 * SECOND), 1080), (card["length"], card["width"]))
        self.assertEqual(2, use["clips"])

    def test_revisions_of_before_facts_get_theirs_when_they_are_listed(self) -> None:
        self.edit(kind="place", clip=self.solid("a", 2))
        Revision.objects.update(facts=None)
        self.assertEqual(2 * SECOND, self.call("get", "/projects").json()[0]["length"])
        self.assertIsNotNone(Project.objects.get(pk=self.project.pk).head.facts)

    def test_a_project_with_a_long_history_can_be_deleted(self) -> None:
        parent = self.project.head
        for number in range(1, 1500):
            parent = Revision.objects.create(project=self.project, parent=parent, number=number)
        Revision.objects.filter(pk=parent.parent_id).update(next=parent)
        self.assertEqual(204, self.call("delete", f"/projects/{self.project.id}").status_code)
        self.assertFalse(Revision.objects.exists())

    def test_impossible_projects_are_refused_plainly(self) -> None:
        for body in (
            {"name": ""},
            {"name": "x", "canvas": {"width": 5000}},
            {"name": "x", "canvas": {"width": 101}},
            {"name": "x", "rate": {"num": 31}},
        ):
            answer = self.call("post", "/projects", body)
            self.assertEqual(422, answer.status_code, body)
            self.assertEqual({"code", "message", "safe", "todo"}, set(answer.json()))

    def test_nothing_of_others_is_there(self) -> None:
        take = take_of(self.project)
        id, head = self.project.id, self.project.head_id
        self.edit(kind="place", clip=clip_of(take))
        self.assertEqual([], self.call("get", "/projects", client=self.other).json())
        for method, path, body in (
            ("get", f"/projects/{id}", None),
            ("patch", f"/projects/{id}", {"name": "mine"}),
            ("delete", f"/projects/{id}", None),
            ("post", f"/projects/{id}/undo", {"based_on": head}),
            (
                "post",
                f"/projects/{id}/edits",
                {"based_on": head, "edit": {"kind": "split", "at": 0}},
            ),
            ("get", f"/projects/{id}/takes", None),
            ("get", f"/projects/{id}/exports", None),
            ("post", f"/projects/{id}/exports", {}),
            ("post", f"/projects/{id}/revisions/{head}/still", {"frame": 0}),
            ("get", f"/projects/{id}/revisions/{head}/frames/0", None),
            ("get", f"/projects/{id}/revisions/{head}/picture?first=0&last=5", None),
            ("get", f"/takes/{take.id}/files/poster.jpg", None),
            ("get", f"/takes/{take.id}/playing", None),
            ("get", f"/takes/{take.id}/sound?first=0&last=5", None),
            ("patch", f"/takes/{take.id}", {"name": "mine"}),
            ("delete", f"/takes/{take.id}", None),
        ):
            with self.subTest(f"{method} {path}"):
                self.assertEqual(404, self.call(method, path, body, self.other).status_code)
                self.assertEqual(401, self.call(method, path, body, self.stranger).status_code)

    def test_changes_need_the_token(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(self.pip)
        self.assertEqual(403, self.call("post", "/projects", {"name": "x"}, strict).status_code)
        strict.get("/api/session")
        token = strict.cookies["csrftoken"].value
        good = strict.post(
            "/api/projects", {"name": "x"}, "application/json", headers={"X-CSRFToken": token}
        )
        self.assertEqual(201, good.status_code)


class StepTest(People, TestCase):
    def test_a_step_comes_back_as_a_patch(self) -> None:
        before = self.document()
        answer = self.edit(kind="place", clip=self.solid()).json()
        self.assertEqual(("Place “s” at the end", 1), (answer["label"], answer["step"]))
        self.assertEqual((True, False), (answer["can_undo"], answer["can_redo"]))
        self.assertEqual(self.document(), jsonpatch.apply_patch(before, answer["patch"]))

    def test_a_stale_step_gets_the_newest_document_and_can_go_on(self) -> None:
        first = self.project.head_id
        self.edit(kind="place", clip=self.solid("a"))
        stale = self.edit(first, kind="place", clip=self.solid("b"))
        self.assertEqual(409, stale.status_code)
        state = stale.json()
        self.assertEqual(self.document(), state["document"])
        again = self.edit(state["revision"], kind="place", clip=self.solid("b"))
        self.assertEqual(200, again.status_code)
        names = [clip["name"] for clip in self.document()["tracks"][0]["clips"]]
        self.assertEqual(["a", "b"], names)

    def test_refused_steps_leave_everything_as_it_was(self) -> None:
        self.edit(kind="place", clip=self.solid())
        before, steps = self.document(), Revision.objects.count()
        for edit in (
            {"kind": "split", "at": 0},
            {"kind": "remove", "clips": ["gone"]},
            {"kind": "fly", "clips": []},
            {"kind": "place", "clip": {"kind": "solid", "length": 0}},
            {"kind": "place", "clip": {"kind": "still", "media": "0" * 32, "length": SECOND}},
            {"kind": "place", "clip": {"kind": "still", "media": "elsewhere", "length": SECOND}},
        ):
            self.assertIn(self.edit(**edit).status_code, (404, 422), edit)
        self.assertEqual((before, steps), (self.document(), Revision.objects.count()))

    def test_a_step_sent_twice_is_done_once_and_answered_alike(self) -> None:
        based = self.project.head_id
        step = {"kind": "place", "clip": self.solid("a"), "seed": "once"}
        first = self.edit(based, **step).json()
        self.edit(kind="place", clip=self.solid("b"), mode="end")
        head = Project.objects.get(pk=self.project.pk).head_id
        again = self.edit(based, **step)
        self.assertEqual((200, first["revision"]), (again.status_code, again.json()["revision"]))
        self.assertEqual((based, first["patch"]), (again.json()["start"], again.json()["patch"]))
        self.assertEqual(head, Project.objects.get(pk=self.project.pk).head_id)
        names = [clip["name"] for clip in self.document()["tracks"][0]["clips"]]
        self.assertEqual(["a", "b"], names)

    def test_a_step_says_what_it_made(self) -> None:
        self.edit(kind="place", clip=self.solid("a", 2))
        [clip] = self.document()["tracks"][0]["clips"]
        split = self.edit(kind="split", at=SECOND, seed="cut").json()
        later = self.document()["tracks"][0]["clips"][1]["id"]
        self.assertEqual([later], split["made"])
        self.assertEqual([later], self.edit(0, kind="split", at=SECOND, seed="cut").json()["made"])
        mask = [{"kind": "ellipse"}]
        parts = self.edit(kind="add_parts", clips=[later], list="masks", parts=mask).json()
        self.assertEqual(1, len(parts["made"]))
        above = self.edit(kind="place", clip=self.solid("b"), mode="above", at=0).json()
        tracks = self.document()["tracks"]
        [new] = [c["id"] for track in tracks for c in track["clips"] if c["name"] == "b"]
        self.assertIn(new, above["made"])
        raised = self.edit(kind="raise", clip=clip["id"]).json()
        self.assertNotIn(clip["id"], raised["made"])
        self.project.refresh_from_db()
        path = f"/projects/{self.project.id}/undo"
        self.assertEqual(
            [], self.call("post", path, {"based_on": self.project.head_id}).json()["made"]
        )

    def test_another_step_under_a_known_name_is_refused(self) -> None:
        self.edit(kind="place", clip=self.solid("a"), seed="once")
        other = self.edit(kind="split", at=SECOND // 2, seed="once")
        self.assertEqual(422, other.status_code)
        self.assertEqual(1, len(self.document()["tracks"][0]["clips"]))

    def test_the_same_name_may_be_used_in_another_project(self) -> None:
        step = {"kind": "place", "clip": self.solid("a"), "seed": "once"}
        self.edit(**step)
        self.project = history.start_project(self.pip, "Two", empty_document())
        self.assertEqual(200, self.edit(**step).status_code)

    def test_takes_of_others_cannot_be_placed(self) -> None:
        theirs = history.start_project(self.wren, "Theirs", history.document_at(self.project.head))
        take = take_of(theirs)
        self.assertEqual(404, self.edit(kind="place", clip=clip_of(take)).status_code)

    def test_undo_and_redo_without_limit_over_many_steps(self) -> None:
        documents = [self.document()]
        for number in range(45):
            self.edit(kind="place", clip=self.solid(f"c{number}"))
            documents.append(self.document())
        history._documents.clear()
        for way, wanted in (("undo", documents[-2::-1]), ("redo", documents[1:])):
            for document in wanted:
                self.project.refresh_from_db()
                based = {"based_on": self.project.head_id}
                answer = self.call("post", f"/projects/{self.project.id}/{way}", based)
                self.assertEqual(200, answer.status_code)
                self.assertEqual(document, self.document())
            answer = self.call(
                "post", f"/projects/{self.project.id}/{way}", {"based_on": self.project.head_id}
            )
        self.assertIn(answer.status_code, (409, 422))

    def test_a_new_step_after_undo_leaves_the_old_branch_in_place(self) -> None:
        for name in "ab":
            self.edit(kind="place", clip=self.solid(name))
        self.project.refresh_from_db()
        old = self.project.head_id
        self.call("post", f"/projects/{self.project.id}/undo", {"based_on": old})
        self.edit(kind="place", clip=self.solid("c"))
        kept = history.document_at(Revision.objects.get(pk=old))
        self.assertEqual(["a", "b"], [clip.name for clip in kept.main.clips])
        names = [clip["name"] for clip in self.document()["tracks"][0]["clips"]]
        self.assertEqual(["a", "c"], names)

    def test_any_revision_can_be_had_without_memory(self) -> None:
        for number in range(25):
            self.edit(kind="place", clip=self.solid(f"c{number}"))
        wanted = {r.pk: dump(history.document_at(r)) for r in Revision.objects.all()}
        history._documents.clear()
        for revision in Revision.objects.all():
            self.assertEqual(wanted[revision.pk], dump(history.document_at(revision)))


class AccountTest(People, TestCase):
    def test_sign_in_and_out(self) -> None:
        good = {"name": "pip", "password": "a-long-one-7"}
        bad = self.call("post", "/session", {**good, "password": "no"}, self.stranger)
        self.assertEqual(422, bad.status_code)
        self.assertTrue(self.call("post", "/session", good, self.stranger).json()["signed_in"])
        self.assertEqual(200, self.call("get", "/projects", client=self.stranger).status_code)
        self.call("delete", "/session", client=self.stranger)
        self.assertEqual(401, self.call("get", "/projects", client=self.stranger).status_code)

    def test_guessing_is_stopped(self) -> None:
        with self.settings(AXES_ENABLED=True, AXES_FAILURE_LIMIT=3):
            for _ in range(3):
                self.call("post", "/session", {"name": "pip", "password": "x"}, self.stranger)
            good = {"name": "pip", "password": "a-long-one-7"}
            answer = self.call("post", "/session", good, self.stranger)
            self.assertNotEqual(200, answer.status_code)

    def test_the_page_may_load_only_from_here(self) -> None:
        answer = self.stranger.get("/")
        self.assertIn("default-src 'self'", answer["Content-Security-Policy"])
        self.assertEqual("DENY", answer["X-Frame-Options"])
