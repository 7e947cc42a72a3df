"""``python -m yardservice --port 8010``: serves prices until it is stopped."""

import argparse
import json
import re
import socket
import time
from datetime import date
from fractions import Fraction
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Lock
from typing import Any

from yardservice.prices import CURRENCIES, quote

PROTOCOL = "grain-tally/yard-prices@1"
MOST_BYTES = 1024 * 1024
MOST_ITEMS = 500
SLOW_SECONDS = 30
FAULTS = ("none", "slow", "down", "malformed", "zero-price", "other-currency")
_FEET = re.compile(r"\d{1,4}(/\d{1,6})?")


class Faults:
    """The fault asked for, and how many answers it still spoils."""

    def __init__(self, name: str) -> None:
        self._lock = Lock()
        self.ask(name, -1)

    def ask(self, name: str, times: int) -> None:
        with self._lock:
            self._name, self._left = name, times

    def next(self) -> str:
        with self._lock:
            if self._left == 0:
                return "none"
            self._left -= 1
            return self._name


class Refused(Exception):
    """A request that is answered with 400 and a message."""


def answer(request: dict[str, Any], day: date, fault: str) -> dict[str, Any]:
    """The answer to a request for prices. Raises ``Refused`` for one that is not well formed."""
    yard, items = request.get("yard"), request.get("items")
    if request.get("protocol") != PROTOCOL:
        raise Refused(f"protocol must be {PROTOCOL}")
    if yard not in CURRENCIES:
        raise Refused("no yard of that code")
    if not isinstance(items, list) or len(items) > MOST_ITEMS:
        raise Refused(f"items must be a list of at most {MOST_ITEMS}")
    prices, unknown = [], []
    for item in items:
        stock, feet = (item.get(key) for key in ("stock", "feet")) if item else (None, None)
        if not isinstance(stock, str) or not isinstance(feet, str) or not _FEET.fullmatch(feet):
            raise Refused("an item is a stock and its length in feet, such as 8 or 4921/625")
        found = quote(yard, stock, Fraction(feet), day)
        asked = {"stock": stock, "feet": feet}
        if found is None:
            unknown.append(asked)
            continue
        price = "0.00" if fault == "zero-price" else f"{found.price:f}"
        prices.append(asked | {"price": price, "per": "each", "available": found.available})
    currency = CURRENCIES[yard]
    if fault == "other-currency":
        currency = "CHF"
    return {
        "protocol": PROTOCOL,
        "yard": yard,
        "currency": currency,
        "as_of": day.isoformat(),
        "prices": prices,
        "unknown": unknown,
    }


class Handler(BaseHTTPRequestHandler):
    """``POST /v1/prices`` asks for prices; ``POST /v1/fault`` orders a fault."""

    protocol_version = "HTTP/1.1"
    faults: Faults
    day: date | None

    def do_POST(self) -> None:
        try:
            body = self._body()
            if self.path == "/v1/fault":
                self._order(body)
            elif self.path == "/v1/prices":
                self._prices(body)
            else:
                self._send(404, {"message": "nothing here"})
        except Refused as refused:
            self._send(400, {"message": str(refused)})

    def _body(self) -> dict[str, Any]:
        length = int(self.headers.get("Content-Length") or 0)
        if not 0 < length <= MOST_BYTES:
            raise Refused("a request has a JSON body of at most 1 MB")
        try:
            body = json.loads(self.rfile.read(length))
        except ValueError as error:
            raise Refused("the body is no JSON") from error
        if not isinstance(body, dict):
            raise Refused("the body must be an object")
        return body

    def _order(self, body: dict[str, Any]) -> None:
        if body.get("fault") not in FAULTS:
            raise Refused(f"fault is one of {', '.join(FAULTS)}")
        times = body.get("times", -1)
        if not isinstance(times, int):
            raise Refused("times is a whole number")
        self.faults.ask(body["fault"], times)
        self._send(200, {"fault": body["fault"], "times": times})

    def _prices(self, body: dict[str, Any]) -> None:
        fault = self.faults.next()
        if fault == "down":
            self._send(503, {"message": "closed for stock-taking"})
            return
        if fault == "slow":
            time.sleep(SLOW_SECONDS)
        found = answer(body, self.day or date.today(), fault)
        if fault == "malformed":
            self._send_bytes(200, json.dumps(found).encode()[:-9])
            return
        self._send(200, found)

    def _send(self, status: int, body: dict[str, Any]) -> None:
        self._send_bytes(status, json.dumps(body).encode())

    def _send_bytes(self, status: int, content: bytes) -> None:
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        self.wfile.write(content)

    def log_message(self, format: str, *args: object) -> None:
        """Says nothing: what is asked is the builder's business."""


def main() -> None:
    """Serves until the process is stopped."""
    parser = argparse.ArgumentParser(prog="yardservice", description=__doc__)
    parser.add_argument("--port", type=int, default=8010, help="0 takes any that is free")
    parser.add_argument("--fault", choices=FAULTS, default="none")
    parser.add_argument("--day", type=date.fromisoformat, help="prices of this day, not today's")
    asked = parser.parse_args()
    handler = type("Served", (Handler,), {"faults": Faults(asked.fault), "day": asked.day})
    server = ThreadingHTTPServer(("127.0.0.1", asked.port), handler)
    server.daemon_threads = True
    server.socket.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    print(f"prices at http://127.0.0.1:{server.server_address[1]}", flush=True)
    server.serve_forever()


if __name__ == "__main__":
    main()
