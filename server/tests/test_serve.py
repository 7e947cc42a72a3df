"""What ``make demo`` serves ends with it, however it ends."""

import os
import socket
import subprocess
import sys
from collections.abc import Callable
from contextlib import closing
from tempfile import TemporaryDirectory
from time import monotonic, sleep
from unittest import TestCase

from django.conf import settings

PATIENCE_SECONDS = 60.0


def free_port() -> int:
    with closing(socket.socket()) as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def answers(port: int) -> bool:
    with closing(socket.socket()) as asked:
        return asked.connect_ex(("127.0.0.1", port)) == 0


class ServeTest(TestCase):
    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.ports = (free_port(), free_port())
        self.environment = os.environ | {
            "GRAIN_TALLY_DATA": folder.name,
            "DJANGO_SETTINGS_MODULE": "server.site.settings",
        }

    def start(self, *command: str) -> subprocess.Popen[str]:
        process = subprocess.Popen(
            command,
            cwd=settings.ROOT,
            env=self.environment,
            stderr=subprocess.PIPE,
            stdout=subprocess.DEVNULL,
            text=True,
            start_new_session=True,
        )
        self.addCleanup(process.communicate)
        return process

    def serve(self) -> subprocess.Popen[str]:
        port, yard = map(str, self.ports)
        serve = (sys.executable, "-m", "server.site.serve")
        return self.start(*serve, "--port", port, "--yard-port", yard)

    def until(self, condition: Callable[[], bool], said: str) -> None:
        last = monotonic() + PATIENCE_SECONDS
        while not condition():
            self.assertLess(monotonic(), last, said)
            sleep(0.1)

    def both(self) -> bool:
        return all(map(answers, self.ports))

    def neither(self) -> bool:
        return not any(map(answers, self.ports))

    def test_it_ends_with_make_even_where_that_is_killed(self) -> None:
        port, yard = self.ports
        make = self.start("make", "--silent", "serve", f"PORT={port}", f"YARD_PORT={yard}")
        self.until(self.both, "it never served")
        make.kill()  # which tells nobody
        self.until(self.neither, "it was left behind")

    def test_what_it_started_ends_with_it_even_where_it_is_killed(self) -> None:
        process = self.serve()
        self.until(self.both, "it never served")
        process.kill()
        self.until(self.neither, "it was left behind")

    def test_a_port_in_use_is_told_in_words(self) -> None:
        with closing(socket.socket()) as other:
            other.bind(("127.0.0.1", self.ports[0]))
            other.listen()
            process = self.serve()
            _, said = process.communicate(timeout=PATIENCE_SECONDS)
        self.assertEqual(process.returncode, 1)
        self.assertIn(f"Port {self.ports[0]} is in use", said)
        self.assertIn(f"make demo PORT={self.ports[0] + 1}", said)
