"""Accounts: made, changed, ended."""

from __future__ import annotations

import io
import json
from typing import Any
from zipfile import ZipFile

from django.contrib.auth.models import User
from django.core.management import call_command
from django.test import Client, TestCase, override_settings

from kitecore.document import load
from studio.accounts.keeping import delete_account
from studio.accounts.models import Allowance, Invitation
from studio.kit.models import Look, look_folder
from studio.projects.models import Project
from studio.tests.site import People, clip_of, take_of, work_off

GOOD = "four-folds-up-7"


class Accounts(People, TestCase):
    def make(self, name: str, password: str = GOOD, **more: str) -> Any:
        client = Client()
        body = {"name": name, "password": password, **more}
        return self.call("post", "/accounts", body, client)

    def can_sign_in(self, name: str, password: str) -> bool:
        body = {"name": name, "password": password}
        return bool(self.call("post", "/session", body, Client()).status_code == 200)


class MakingTest(Accounts):
    def test_the_first_one_can_always_be_made_and_runs_the_site(self) -> None:
        for user in User.objects.all():
            delete_account(user)
        self.assertEqual("first", self.call("get", "/session", client=Client()).json()["way_in"])
        answer = self.make("rook")
        self.assertEqual((201, "rook"), (answer.status_code, answer.json()["name"]))
        self.assertTrue(User.objects.get().is_superuser)
        self.assertEqual(422, self.make("second").status_code)

    def test_closed_nobody_else_can(self) -> None:
        self.assertEqual("closed", self.call("get", "/session", client=Client()).json()["way_in"])
        self.assertEqual(422, self.make("rook").status_code)
        code = Invitation.objects.create().code
        self.assertEqual(422, self.make("rook", invitation=code).status_code)

    @override_settings(ACCOUNTS="open")
    def test_open_anybody_can_under_a_name_and_a_password_that_will_do(self) -> None:
        for name, password in (
            ("rook", "short"),
            ("rook", "password123"),
            ("PIP", GOOD),
            ("", GOOD),
            ("a b", GOOD),
            ("x" * 80, GOOD),
        ):
            with self.subTest(name=name, password=password):
                answer = self.make(name, password)
                self.assertEqual(422, answer.status_code)
                self.assertTrue(answer.json()["message"])
        self.assertEqual(201, self.make("rook").status_code)
        self.assertFalse(User.objects.get(username="rook").is_staff)

    @override_settings(ACCOUNTS="invited")
    def test_an_invitation_lets_one_person_in_once(self) -> None:
        told = io.StringIO()
        call_command("invite", stdout=told)
        code = told.getvalue().strip().partition("invitation=")[2]
        self.assertEqual(422, self.make("rook").status_code)
        self.assertEqual(422, self.make("rook", invitation="made-up").status_code)
        self.assertEqual(201, self.make("rook", invitation=code).status_code)
        self.assertEqual(422, self.make("jay", invitation=code).status_code)


class ChangingTest(Accounts):
    def test_a_name_is_changed_unless_it_is_taken(self) -> None:
        self.assertEqual(422, self.call("patch", "/account", {"name": "Wren"}).status_code)
        answer = self.call("patch", "/account", {"name": "pippin"})
        self.assertEqual("pippin", answer.json()["name"])
        self.assertEqual(200, self.call("get", "/projects").status_code)

    def test_a_password_is_changed_and_other_devices_are_signed_out(self) -> None:
        other = Client()
        other.force_login(self.pip)
        body = {"password": "wrong", "new_password": GOOD}
        self.assertEqual(422, self.call("patch", "/account", body).status_code)
        body["password"] = "a-long-one-7"
        self.assertEqual(200, self.call("patch", "/account", body).status_code)
        self.assertEqual(200, self.call("get", "/projects").status_code)
        self.assertEqual(401, self.call("get", "/projects", client=other).status_code)
        self.assertTrue(self.can_sign_in("pip", GOOD))
        self.assertFalse(self.can_sign_in("pip", "a-long-one-7"))

    def test_a_link_sets_a_forgotten_password_once(self) -> None:
        told = io.StringIO()
        call_command("password_link", "pip", stdout=told)
        who, token = told.getvalue().strip().split("/")[-2:]
        body = {"who": who, "token": token, "password": "short"}
        self.assertEqual(422, self.call("post", "/new-password", body, Client()).status_code)
        body["password"] = GOOD
        answer = self.call("post", "/new-password", body, Client())
        self.assertEqual("pip", answer.json()["name"])
        self.assertEqual(404, self.call("post", "/new-password", body, Client()).status_code)
        for odd in ({"who": "%%%"}, {"who": "MQ", "token": "1-2"}, {"who": "z" * 40}):
            with self.subTest(odd):
                answer = self.call("post", "/new-password", body | odd, Client())
                self.assertEqual(404, answer.status_code)

    def test_devices_are_listed_and_signed_out_one_by_one(self) -> None:
        other = Client(headers={"user-agent": "A tablet"})
        body = {"name": "pip", "password": "a-long-one-7"}
        self.call("post", "/session", body, other)
        devices = self.call("get", "/account/devices").json()
        self.assertEqual({"A tablet", ""}, {one["browser"] for one in devices})
        [here] = [one for one in devices if one["here"]]
        [tablet] = [one for one in devices if not one["here"]]
        path = f"/account/devices/{tablet['id']}"
        self.assertEqual(404, self.call("delete", path, client=self.other).status_code)
        self.assertEqual(204, self.call("delete", path).status_code)
        self.assertEqual(401, self.call("get", "/projects", client=other).status_code)
        left = self.call("get", "/account/devices").json()
        self.assertEqual([here["id"]], [one["id"] for one in left])


class LeavingTest(Accounts):
    def test_an_account_goes_with_all_that_is_its_own_and_nothing_else(self) -> None:
        take = take_of(self.project)
        theirs = Project.objects.create(owner=self.wren, name="Theirs")
        kept = take_of(theirs)
        look = Look.objects.create(owner=self.pip, name="l")
        look_folder().path.mkdir(parents=True, exist_ok=True)
        table = look_folder().file(look.id.hex)
        table.write_text("x")
        body = {"password": "wrong"}
        self.assertEqual(422, self.call("post", "/account/delete", body).status_code)
        with self.captureOnCommitCallbacks(execute=True):
            answer = self.call("post", "/account/delete", {"password": "a-long-one-7"})
        self.assertEqual((200, False), (answer.status_code, answer.json()["signed_in"]))
        self.assertFalse(User.objects.filter(username="pip").exists())
        self.assertFalse(take.folder.path.exists() or table.exists())
        self.assertTrue(kept.folder.original.exists())
        self.assertEqual([theirs], list(Project.objects.all()))
        self.assertEqual(401, self.call("get", "/projects").status_code)


class RoomTest(Accounts):
    def test_what_is_left_is_told_and_whoever_runs_the_site_sets_it(self) -> None:
        self.assertEqual(
            {"has": 1, "most": 500}, self.call("get", "/account/room").json()["projects"]
        )
        Allowance.objects.create(owner=self.pip, projects=1, library_gb=0, unfinished_films=0)
        room = self.call("get", "/account/room").json()
        self.assertEqual([1, 0, 0], [one["most"] for one in (
            room["projects"], room["library"], room["unfinished_films"]
        )])  # fmt: skip
        for path, body in (
            ("/projects", {"name": "Second"}),
            (f"/projects/{self.project.id}/samples", {"names": ["a"]}),
        ):
            with self.subTest(path):
                answer = self.call("post", path, body)
                self.assertIn(answer.status_code, (404, 422))
        self.edit(kind="place", clip=self.solid())
        film = self.call("post", f"/projects/{self.project.id}/exports", {})
        self.assertEqual(422, film.status_code)
        self.assertEqual(201, self.call("post", "/projects", {"name": "x"}, self.other).status_code)

    def test_the_rooms_of_whoever_runs_the_site_are_closed_to_others(self) -> None:
        self.assertEqual(302, self.mine.get("/admin/").status_code)
        self.pip.is_staff = self.pip.is_superuser = True
        self.pip.save()
        for page in ("", "accounts/allowance/", "accounts/device/", "jobs/job/", "auth/user/"):
            with self.subTest(page):
                self.assertEqual(200, self.mine.get(f"/admin/{page}").status_code)


class ArchiveTest(Accounts):
    def test_all_that_is_a_persons_is_packed_and_nothing_of_others(self) -> None:
        take = take_of(self.project, "kite: high?.mp4")
        theirs = Project.objects.create(owner=self.wren, name="Theirs")
        take_of(theirs, "theirs.mp4")
        self.edit(kind="place", clip=clip_of(take))
        self.assertEqual(404, self.call("get", "/account/archive/file").status_code)
        job = self.call("post", "/account/archive").json()
        self.assertEqual(job["id"], self.call("post", "/account/archive").json()["id"])
        work_off()
        self.assertEqual("done", self.call("get", "/account/archive").json()["state"])
        answer = self.call("get", "/account/archive/file")
        self.assertIn("attachment", answer["Content-Disposition"])
        with ZipFile(io.BytesIO(b"".join(answer.streaming_content))) as archive:
            self.assertIsNone(archive.testzip())
            names = archive.namelist()
            [told] = json.loads(archive.read("takes.json"))
            self.assertEqual(take.folder.original.read_bytes(), archive.read(told["file"]))
            [project] = [name for name in names if name.startswith("projects/")]
            document = load(json.loads(archive.read(project))["document"])
        self.assertEqual({take.id.hex}, document.media_ids())
        self.assertFalse(any("theirs" in name or ":" in name for name in names))
        self.assertEqual(
            404, self.call("get", "/account/archive/file", client=self.other).status_code
        )
