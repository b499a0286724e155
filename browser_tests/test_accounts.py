"""An account from a forgotten password to its end, in the browser."""

from __future__ import annotations

from io import BytesIO
from zipfile import ZipFile

from django.contrib.auth.models import User

from browser_tests.site import SiteTest
from studio.accounts.keeping import password_link


class AccountsTest(SiteTest):
    size = (390, 844)
    touch = True

    def test_a_password_is_set_anew_changed_and_the_account_left(self) -> None:
        browser = self.browser
        browser.press("sign-out")
        browser.find("#name")
        pip = User.objects.get(username="pip")
        browser.open(password_link(pip))
        browser.type("#password", "seven-kites-up")
        browser.press("enter")

        browser.press("account")
        browser.type("#account-name", "pippin")
        browser.find("form button[type=submit]").click()
        browser.wait(lambda: User.objects.filter(username="pippin").exists(), what="not renamed")
        browser.type("[aria-label='The password of now']", "wrong-one")
        browser.type("[aria-label='The new password']", "eight-kites-up")
        browser.press("change-password")
        self.assertIn("not your password", browser.find("[role=alert]").text)
        browser.type("[aria-label='The password of now']", "seven-kites-up")
        browser.press("change-password")
        browser.wait(
            lambda: User.objects.get(username="pippin").check_password("eight-kites-up"),
            what="the password was not changed",
        )

        browser.press("make-archive")
        packed = browser.test("fetch-archive").get_attribute("href")
        with ZipFile(BytesIO(browser.fetched(packed or ""))) as archive:
            self.assertEqual({"takes.json", "kit.json"}, set(archive.namelist()))

        browser.press("leave-for-good")
        browser.type("[aria-label='Your password']", "eight-kites-up")
        browser.press("leave-now")
        browser.find("[data-test=first-account]")
        self.assertFalse(User.objects.exists())
        browser.type("#name", "rook")
        browser.type("#password", "nine-kites-up-7")
        browser.press("enter")
        browser.find(".content")
        self.assertTrue(User.objects.get(username="rook").is_superuser)
