import uuid

from django.conf import settings
from django.test import Client, override_settings

from server.accounts.models import User
from server.tests.base import ApiTestCase


class AccountTest(ApiTestCase):
    def test_signing_up_in_and_out(self) -> None:
        self.client.logout()
        self.assertEqual(self.ask("get", "/session").json()["username"], "")
        new = {"username": "tove", "password": "barrel-and-hoop"}
        self.assertEqual(self.ask("post", "/account", new).json()["username"], "tove")
        self.assertEqual(self.ask("delete", "/session").json()["username"], "")
        self.assertEqual(self.ask("get", "/overview").status_code, 401)
        self.assertEqual(self.ask("post", "/session", new).json()["username"], "tove")

    def test_what_is_refused(self) -> None:
        self.client.logout()
        taken = self.ask("post", "/account", {"username": "mira", "password": "barrel-and-hoop"})
        self.assertIn("already exists", self.problems(taken)["username"])
        short = self.ask("post", "/account", {"username": "x", "password": "1234"})
        self.assertIn("too", self.problems(short)["password"])
        wrong = self.ask("post", "/session", {"username": "mira", "password": "no"})
        self.assertIn("wrong", self.problems(wrong)["password"])

    def test_attempts_are_throttled(self) -> None:
        self.client.logout()
        wrong = {"username": "mira", "password": "no"}
        statuses = [self.ask("post", "/session", wrong).status_code for _ in range(12)]
        self.assertEqual(statuses[0], 422)
        self.assertEqual(statuses[-1], 429)

    def test_changing_the_password(self) -> None:
        wrong = self.ask("post", "/account/password", {"old": "no", "new": "another-long-1"})
        self.assertIn("not the password", self.problems(wrong)["old"])
        weak = self.ask("post", "/account/password", {"old": "long-enough-7", "new": "12345678"})
        self.assertIn("common", self.problems(weak)["new"])
        good = self.ask(
            "post", "/account/password", {"old": "long-enough-7", "new": "another-long-1"}
        )
        self.assertEqual(good.json()["username"], "mira")
        self.assertTrue(Client().login(username="mira", password="another-long-1"))

    def test_taking_everything_away_and_deleting_it(self) -> None:
        self.new_project("2 rail 2x4 60")
        exported = self.ask("get", "/account/export.json").json()
        self.assertEqual(exported["projects"][0]["parts"][0]["name"], "rail")
        wrong = self.ask("post", "/account/delete", {"password": "no"})
        self.assertIn("not the password", self.problems(wrong)["password"])
        gone = self.ask("post", "/account/delete", {"password": "long-enough-7"})
        self.assertEqual(gone.status_code, 200)
        self.assertFalse(User.objects.filter(username="mira").exists())

    def test_the_demo_door_is_there_only_with_the_demo(self) -> None:
        client = Client()
        self.assertFalse(client.get("/api/session").json()["demo_available"])
        self.assertEqual(client.post("/api/session/demo").status_code, 422)
        demo = User.objects.create_user(settings.DEMO_USER)
        self.assertTrue(client.get("/api/session").json()["demo_available"])
        self.assertTrue(client.post("/api/session/demo").json()["is_demo"])
        self.client.force_login(demo)
        refused = self.ask("post", "/account/delete", {"password": ""})
        self.assertIn("everybody's", self.problems(refused)[""])


class SafetyTest(ApiTestCase):
    def test_a_change_without_the_token_is_refused(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(self.user)
        body = {"id": str(uuid.uuid4()), "name": "x", "unit": "in"}
        answer = strict.post("/api/projects", body, content_type="application/json")
        self.assertEqual(answer.status_code, 403)

    def test_the_page_comes_with_its_policy(self) -> None:
        policy = self.client.get("/projects")["Content-Security-Policy"]
        self.assertIn("default-src 'self'", policy)
        self.assertIn("script-src 'self'", policy)
        self.assertNotIn("script-src 'self' 'unsafe-inline'", policy)

    @override_settings(ALLOWED_HOSTS=["127.0.0.1"])
    def test_other_hosts_are_refused(self) -> None:
        self.assertEqual(self.client.get("/", HTTP_HOST="elsewhere.test").status_code, 400)
