"""The price service is a real process here, reached over HTTP."""

import json
import subprocess
import sys
import uuid
from threading import Thread
from typing import Any
from unittest.mock import patch

import urllib3
from django.conf import settings
from django.test import override_settings

from carpentry.tests.samples import sample
from server.tests.base import ApiTestCase
from server.yards import asking
from server.yards.models import PriceLine, Yard

NAME = "simulated yard"


class AskTheYardTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.service = subprocess.Popen(
            [sys.executable, "-m", "yardservice", "--port", "0", "--day", self.today()],
            stdout=subprocess.PIPE,
            text=True,
            cwd=settings.ROOT,
        )
        assert self.service.stdout
        self.address = self.service.stdout.readline().split()[-1]
        self.addCleanup(self.end_service)
        overridden = override_settings(
            PRICE_SERVICES={NAME: self.address}, PRICE_SERVICE_READ_SECONDS=1.0
        )
        overridden.enable()
        self.addCleanup(overridden.disable)
        id_ = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        self.yard = Yard.objects.get(id=id_)
        self.patch(price_service=NAME, service_code="tallow-street")

    def end_service(self) -> None:
        self.service.kill()
        self.service.wait()
        assert self.service.stdout
        self.service.stdout.close()

    @staticmethod
    def today() -> str:
        return asking.date.today().isoformat()

    def seen(self) -> dict[str, Any]:
        self.yard.refresh_from_db()
        return {"version": self.yard.version, "change_id": str(uuid.uuid4())}

    def patch(self, **typed: Any) -> None:
        answer = self.ask("patch", f"/yards/{self.yard.id}", self.seen() | typed)
        self.assertEqual(answer.status_code, 200, answer.content)

    def order(self, fault: str, times: int = -1) -> None:
        urllib3.request("POST", f"{self.address}/v1/fault", json={"fault": fault, "times": times})

    def ask_yard(self) -> Any:
        return self.ask("post", f"/yards/{self.yard.id}/ask")

    def prices(self) -> list[tuple[str, ...]]:
        return list(PriceLine.objects.values_list("id", "price", "per", "available", "date"))

    def refused(self) -> str:
        before = self.prices()
        message = self.problems(self.ask_yard())["service"]
        self.assertIn("no price is changed", message)
        self.assertEqual(self.prices(), before)
        return message

    def test_asking_changes_nothing_until_the_builder_accepts(self) -> None:
        before = self.prices()
        asked = self.ask_yard().json()
        self.assertEqual(self.prices(), before)
        self.assertEqual(asked["as_of"], self.today())
        told = len(asked["changed"]) + asked["same"] + len(asked["unknown"])
        self.assertEqual(told + len(asked["refused"]), len(before))
        self.assertGreater(len(asked["changed"]), 5)
        taken = asked["changed"][:3]
        quotes = [{k: one[k] for k in ("line", "price", "available")} for one in taken]
        body = self.seen() | {"as_of": asked["as_of"], "quotes": quotes}
        yard = self.ask("post", f"/yards/{self.yard.id}/quotes", body).json()
        self.assertIn("3 prices", yard["change"])
        lines = {line["id"]: line for line in yard["lines"]}
        for one in taken:
            line = lines[one["line"]]
            self.assertEqual((line["price"], line["per"]), (one["price"], "each"))
            self.assertEqual((line["available"], line["date"]), (one["available"], self.today()))
        again = self.ask_yard().json()
        self.assertEqual(again["same"], asked["same"] + 3)
        self.ask("post", f"/yards/{self.yard.id}/undo", self.seen())
        self.assertEqual(sorted(self.prices()), sorted(before))

    def test_a_quote_for_a_line_that_is_gone_takes_nothing(self) -> None:
        before = self.prices()
        quotes = [
            {"line": str(before[0][0]), "price": "9.99", "available": ""},
            {"line": str(uuid.uuid4()), "price": "9.99", "available": ""},
        ]
        body = self.seen() | {"as_of": self.today(), "quotes": quotes}
        answer = self.ask("post", f"/yards/{self.yard.id}/quotes", body)
        self.assertIn("ask again", self.problems(answer)[""])
        self.assertEqual(self.prices(), before)

    def test_down_for_a_moment_is_waited_out(self) -> None:
        self.order("down", times=2)
        self.assertEqual(self.ask_yard().status_code, 200)

    def test_faults_are_told_and_change_nothing(self) -> None:
        for fault, said in (
            ("down", "is down"),
            ("malformed", "makes no sense"),
            ("other-currency", "prices in CHF, this yard in USD"),
        ):
            with self.subTest(fault):
                self.order(fault)
                self.assertIn(said, self.refused())

    @override_settings(PRICE_SERVICE_READ_SECONDS=0.1)
    def test_too_slow(self) -> None:
        self.order("slow")
        self.assertIn("in time", self.refused())

    def test_a_price_of_zero_is_not_believed(self) -> None:
        self.order("zero-price")
        asked = self.ask_yard().json()
        self.assertEqual(asked["changed"], [])
        self.assertIn("0.00 is not believed", asked["refused"][0]["reason"])

    def test_killed_in_the_middle_of_a_refresh(self) -> None:
        self.order("slow")
        before = self.prices()
        answers: list[Any] = []
        asked = Thread(target=lambda: answers.append(self.ask_yard()))
        with override_settings(PRICE_SERVICE_READ_SECONDS=20.0):
            asked.start()
            asked.join(0.5)
            self.assertTrue(asked.is_alive())
            self.service.kill()
            asked.join(30)
        self.assertIn("no price is changed", self.problems(answers[0])["service"])
        self.assertEqual(self.prices(), before)

    def test_a_yard_without_a_service(self) -> None:
        self.patch(price_service="")
        self.assertIn("choose", self.refused())
        self.patch(price_service="http://169.254.169.254/")
        self.assertIn("choose", self.refused())

    def test_a_code_the_service_does_not_know(self) -> None:
        self.patch(service_code="elsewhere")
        self.assertIn("no yard of that code", self.refused())

    def test_answers_that_do_not_fit_what_was_asked(self) -> None:
        def answered(**other: Any) -> bytes:
            return json.dumps(
                {
                    "protocol": asking.PROTOCOL,
                    "yard": "tallow-street",
                    "currency": "USD",
                    "as_of": self.today(),
                    "prices": [],
                    "unknown": [],
                }
                | other
            ).encode()

        stray = {"stock": "2x99", "feet": "8", "price": "1.00", "per": "each", "available": None}
        for other, said in (
            ({"yard": "another"}, "another yard"),
            ({"as_of": "2020-01-01"}, "not of today"),
            ({"prices": [stray]}, "not asked for"),
            ({"prices": [stray | {"price": "1.005"}]}, "no sense"),
            ({"prices": [stray | {"price": "-1.00"}]}, "no sense"),
            ({"more": 1}, "no sense"),
        ):
            with self.subTest(other), patch.object(asking, "_ask", return_value=answered(**other)):
                self.assertIn(said, self.refused())
        with patch.object(asking, "_ask", return_value=answered()):
            left_out = self.ask_yard().json()["refused"]
        self.assertEqual(len(left_out), len(self.prices()))

    def test_a_great_change_is_marked(self) -> None:
        PriceLine.objects.update(price="0.20", per="each")
        asked = self.ask_yard().json()
        self.assertIn("3 times", asked["changed"][0]["doubt"])
