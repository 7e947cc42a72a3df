from carpentry.tests.samples import sample
from server.tests.base import ApiTestCase


class SizeBookTest(ApiTestCase):
    def test_the_whole_book_and_a_look_up(self) -> None:
        book = self.ask("get", "/sizes").json()
        names = [family["name"] for family in book["families"]]
        self.assertEqual(names[:3], ["boards", "dimension", "timbers"])
        found = self.ask("get", "/sizes?name=2x10 green").json()["families"][0]["sizes"][0]
        self.assertEqual(found["green_width"]["inches"]["text"], "9 1/2″")
        self.assertEqual(found["width"]["millimetres"]["text"], "235 mm")
        none = self.ask("get", "/sizes?name=plank").json()
        self.assertEqual(none["families"], [])
        self.assertIn("names no size", none["message"])

    def test_ways_with_a_yards_prices(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        asked = f"/sizes/ways?thickness=3/4&width=5&words=cedar&yard={yard}"
        ways = self.ask("get", asked).json()
        # 1x6 cedar: the least of 7.30 ÷ 6, 9.88 ÷ 8, 12.15 ÷ 10 and 14.70 ÷ 12 a foot
        self.assertEqual((ways[0]["size"], ways[0]["cost"]), ("1x6", "$1.22"))
        plain = self.ask("get", "/sizes/ways?thickness=3/4&width=5").json()
        self.assertIsNone(plain[0]["cost"])

    def test_what_is_refused(self) -> None:
        self.assertEqual(
            set(self.problems(self.ask("get", "/sizes/ways?thickness=x&width="))),
            {"thickness", "width"},
        )
        self.assertIn("width", self.problems(self.ask("get", "/sizes/ways?thickness=1&width=99")))
        nobody = "00000000-0000-4000-8000-000000000000"
        answer = self.ask("get", f"/sizes/ways?thickness=1&width=3&yard={nobody}")
        self.assertEqual(answer.status_code, 404)
