"""The desk in a browser: with 2,000 rows the first of them and an edit of one, and with sizes that
follow one another how long all that follows takes."""

import json
import statistics
import time
import uuid

from playwright.sync_api import Browser, Page, sync_playwright

from benchmarks.crowd import served
from benchmarks.reporting import report
from e2e.chromium import CHROMIUM

ROWS, LOADS, EDITS, PAUSE = 2_000, 5, 9, 1.0
SLOWED, STARTS = 4, 7
PARTS, FORMULAS = 200, 60


def desk() -> None:
    """How long a phone takes from nothing to a screen; and with many rows, how long until the first
    are there, and until an edit is acknowledged while the plan is still being made."""
    with served() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/sign-in")
        page.get_by_role("button", name="Enter the demo workshop").click()
        page.wait_for_url("**/projects")
        compost = page.get_by_role("link", name="Compost station").get_attribute("href")
        for place, path in (("desk", compost), ("list", f"{compost}/list"), ("prices", "/yards")):
            times = sorted(_cold_start(browser, page, f"{address}{path}") for _ in range(STARTS))
            told = f"median {statistics.median(times):.2f} s, worst {times[-1]:.2f}"
            report(f"{place}, cold start on a phone slowed {SLOWED}x", told)
        project = _project(page, address)
        times = sorted(_first_rows(page, address, project) for _ in range(LOADS))
        told = f"median {statistics.median(times):.2f} s, worst {times[-1]:.2f}, page and all"
        report(f"desk of {ROWS:,} rows, first rows", told)
        times = sorted(_edit(page, n) for n in range(EDITS))
        told = f"median {statistics.median(times):.2f} s, worst {times[-1]:.2f}"
        report("  an edit acknowledged", told)
        _followers(page, address)
        _shape(page, address)
        browser.close()


def _cold_start(browser: Browser, page: Page, address: str) -> float:
    """Seconds from opening an address on a slow phone that has nothing of it yet, signed in as
    ``page`` is, until the screen can be used."""
    context = browser.new_context(viewport={"width": 390, "height": 844})
    context.add_cookies(page.context.cookies())  # type: ignore[arg-type]
    phone = context.new_page()
    context.new_cdp_session(phone).send("Emulation.setCPUThrottlingRate", {"rate": SLOWED})
    started = time.perf_counter()
    phone.goto(address)
    phone.locator("#main h1, [data-part]").first.wait_for(state="attached")
    took = time.perf_counter() - started
    context.close()
    return took


ASK = """async ([path, body]) => {
    const token = /csrftoken=([^;]+)/.exec(document.cookie)[1]
    const headers = { 'X-CSRFToken': token }
    const form = new FormData()
    if (body.file) for (const name in body) form.append(name, body[name])
    else headers['Content-Type'] = 'application/json'
    if (body.file) form.set('file', new File([body.file], 'project.json'))
    const told = body.file ? form : JSON.stringify(body)
    const answer = await fetch('/api' + path, { method: 'POST', headers, body: told })
    return await answer.json()
}"""


def _followers(page: Page, address: str) -> None:
    """From a length that all else follows until the last of it is on the screen, planning apart."""
    sizes = {"m0": "length of A"} | {f"m{n}": f"m{n - 1} + 1/16" for n in range(1, FORMULAS)}
    parts = [
        {"quantity": "1", "name": f"part{n}", "stock": "2x4", "length": f"=m{-n % FORMULAS}"}
        for n in range(PARTS)
    ]
    parts[0]["length"] = "20"
    document = {
        "format": "grain-tally/project@3",
        "name": "All of it follows",
        "measures": [{"name": name, "formula": text} for name, text in sizes.items()],
        "parts": parts,
    }
    id_ = str(uuid.uuid4())
    page.evaluate(ASK, ["/projects/import", {"id": id_, "file": json.dumps(document)}])
    page.goto(f"{address}/projects/{id_}")
    page.locator('[data-mark="A"]').wait_for()
    page.locator("svg.board").first.wait_for(timeout=60_000)
    took = sorted(_followed(page, n) for n in range(EDITS))
    told = f"median {statistics.median(took):.2f} s, worst {took[-1]:.2f}"
    report(f"{PARTS} parts and {FORMULAS} formulas, all that follows on the screen", told)


def _followed(page: Page, number: int) -> float:
    """Seconds from leaving the length that all follow until a part at the end of the chain has its
    new one: it is 59 sixteenths longer."""
    time.sleep(PAUSE)
    cell = page.get_by_label("Length of part0", exact=True).element_handle()
    assert cell is not None
    cell.fill(f"{21 + number}")
    last = page.locator("[data-part]").filter(has=page.get_by_label("Name of part1", exact=True))
    started = time.perf_counter()
    cell.press("Tab")
    last.get_by_text(f"{24 + number}11⁄16").wait_for()
    return time.perf_counter() - started


def _shape(page: Page, address: str) -> None:
    """From a measure of a shape until the change bar, a part of it and its drawing have it."""
    page.goto(f"{address}/projects")
    page.get_by_role("link", name="Rain-barrel stand").click()
    page.locator("svg.board").first.wait_for(timeout=60_000)
    page.get_by_role("tab", name="Drawing").click()
    page.get_by_role("region", name="Drawing").get_by_text("77").first.wait_for()
    took = sorted(_reshaped(page, n) for n in range(EDITS))
    told = f"median {statistics.median(took):.2f} s, worst {took[-1]:.2f}"
    report("a shape changed: its part, drawing and change bar", told)


def _reshaped(page: Page, number: int) -> float:
    """Seconds from leaving the height of the stand until the change bar names the parts that follow
    and the drawing has its legs, a board of 1 1/2 shorter."""
    time.sleep(PAUSE)
    page.get_by_role("tab", name="Measures").click()
    cell = page.get_by_label("Formula of up", exact=True).element_handle()
    assert cell is not None
    height = 30 + number
    cell.fill(f"{height}")
    drawing = page.get_by_role("region", name="Drawing")
    started = time.perf_counter()
    cell.press("Tab")
    page.locator(".change", has_text=f"→ {height}; A").wait_for()
    drawing.get_by_text(f"{height - 2}1⁄2″").first.wait_for()
    return time.perf_counter() - started


def _project(page: Page, address: str) -> str:
    """A new project with many parts of four woods."""
    woods = ("2x4 pine", "1x6 cedar", "2x6 fir", "1x4 oak")
    lines = [f"{1 + n % 3} part{n} {woods[n % 4]} {10 + (n * 37 % 640) / 8:g}" for n in range(ROWS)]
    new = {"id": str(uuid.uuid4()), "name": "Two thousand rows", "unit": "in"}
    made = page.evaluate(ASK, ["/projects", new])
    seen = {"version": made["version"], "change_id": str(uuid.uuid4())}
    added = seen | {"text": "\n".join(lines)}
    page.evaluate(ASK, [f"/projects/{new['id']}/parts", added])
    return new["id"]


def _first_rows(page: Page, address: str, project: str) -> float:
    """Seconds from going to the desk until its first row is there."""
    page.goto(f"{address}/sizes")
    page.wait_for_load_state("networkidle")
    started = time.perf_counter()
    page.goto(f"{address}/projects/{project}")
    page.locator('[data-mark="A"]').wait_for()
    return time.perf_counter() - started


def _edit(page: Page, number: int) -> float:
    """Seconds from leaving a changed cell until it is said what was changed, a moment after the
    edit before it."""
    time.sleep(PAUSE)
    cell = page.get_by_label(f"Length of part{number}", exact=True).element_handle()
    assert cell is not None
    cell.fill(f"{50 + number}")
    started = time.perf_counter()
    cell.press("Tab")
    page.locator(".change", has_text=f"part{number}: length").wait_for()
    return time.perf_counter() - started
