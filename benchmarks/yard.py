"""At the yard: how soon a slow phone is of use, and how soon it knows what to take instead."""

import json
import statistics
import time
import unittest
import uuid
from io import StringIO

from django.test import Client

from benchmarks.application import load_demo
from benchmarks.reporting import report
from e2e.browser import PHONE_SIZE, BrowserTestCase

SLOWER = 4


def none_of_these() -> None:
    """Every line of every demo project's trip is not there, one after the other."""
    load_demo()
    client = Client()
    client.post("/api/session/demo")
    for row in client.get("/api/overview").json():
        path = f"/api/projects/{row['id']}/trips"
        begun = client.post(path, {"id": str(uuid.uuid4())}, content_type="application/json")
        trip = begun.json()
        lines = [line for rack in trip["racks"] for line in rack["lines"] if line["is_board"]]
        seconds = []
        for line in lines:
            event = {"id": str(uuid.uuid4()), "kind": "only", "line": line["key"], "count": 0}
            undone = {"id": str(uuid.uuid4()), "kind": "undone", "undoes": event["id"]}
            for told in (event, undone):
                started = time.perf_counter()
                client.post(
                    f"/api/trips/{trip['id']}/events",
                    json.dumps({"events": [told]}),
                    content_type="application/json",
                )
                seconds.append(time.perf_counter() - started)
        report(
            f"none of these, {row['name']}",
            f"median {statistics.median(seconds):.3f} s, worst {max(seconds):.3f}",
        )


class SlowPhone(BrowserTestCase):
    size = PHONE_SIZE

    def runTest(self) -> None:
        page = self.open_project()
        address = f"{page.url}/yard"
        for visit in ("first visit", "again"):
            if visit == "first visit":
                state = self.context.storage_state()
                width, height = self.size
                context = self.browser.new_context(
                    viewport={"width": width, "height": height}, storage_state=state
                )
                page = context.new_page()
            slow = page.context.new_cdp_session(page)
            slow.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
            started = time.perf_counter()
            page.goto(address)
            page.get_by_role("tab", name="treated").click()
            shown = time.perf_counter() - started
            before = page.locator(".so-far").inner_text()
            page.get_by_role("button", name="Got 1").first.click()
            page.wait_for_function(
                "before => document.querySelector('.so-far').innerText !== before", arg=before
            )
            ticked = time.perf_counter() - started
            report(
                f"yard, {SLOWER}x slower phone, {visit}",
                f"usable {shown:.2f} s, first tick done {ticked:.2f}",
            )


def slow_phone() -> None:
    """From the address to the list, and to the first tick shown as done."""
    result = unittest.TextTestRunner(stream=StringIO()).run(unittest.TestSuite([SlowPhone()]))
    if not result.wasSuccessful():
        raise RuntimeError(result.errors or result.failures)
