"""Serves the application and the simulated yard together: ``python -m server.site.serve``.

Both end with this process, and this process ends with the one that started it, such as ``make``,
however that ends: nothing is left behind that holds a port.
"""

import argparse
import os
import signal
import socket
import subprocess
import sys
import time

WATCH_SECONDS = 0.2
STOP_SECONDS = 10


def main() -> int:
    started_by = os.getppid()
    asked = _arguments()
    if not _is_free(asked.host, asked.port):
        print(
            f"Port {asked.port} is in use, perhaps by a Grain Tally that still runs. "
            f"Stop that one, or use another port: make demo PORT={asked.port + 1}",
            file=sys.stderr,
        )
        return 1
    for name in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(name, lambda *_: sys.exit(0))
    children = []
    try:
        if _is_free("127.0.0.1", asked.yard_port):
            children.append(_start(asked, _yard(asked), stdout=subprocess.DEVNULL))
        else:
            print(f"Port {asked.yard_port} is in use: whoever answers there is asked for prices.")
        children.append(_start(asked, _application(asked)))
        _print_address(asked)
        while os.getppid() == started_by:
            for child in children:
                if child.poll() is not None:
                    return child.returncode or 1
            time.sleep(WATCH_SECONDS)
        return 0
    finally:
        _stop(children)


def _arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--yard-port", type=int, default=8010)
    parser.add_argument("--certificate", help="with --key, serves over TLS")
    parser.add_argument("--key")
    return parser.parse_args()


def _is_free(host: str, port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True


def _settings(asked: argparse.Namespace) -> dict[str, str]:
    """What the application is told, where the environment does not say it."""
    hosts = ["127.0.0.1", "localhost", "[::1]"]
    if asked.host == "0.0.0.0":
        found = subprocess.run(["hostname", "-I"], capture_output=True, text=True, check=False)
        hosts += found.stdout.split()
    usual = {
        "GRAIN_TALLY_HOSTS": ",".join(hosts),
        "GRAIN_TALLY_TLS": "own" if asked.certificate else "",
        "GRAIN_TALLY_PRICE_SERVICES": f"simulated yard=http://127.0.0.1:{asked.yard_port}",
    }
    told = {name: os.environ.get(name, value) for name, value in usual.items()}
    return told | {"GRAIN_TALLY_HOSTS": told["GRAIN_TALLY_HOSTS"] or usual["GRAIN_TALLY_HOSTS"]}


def _yard(asked: argparse.Namespace) -> list[str]:
    return [sys.executable, "-m", "yardservice", "--port", str(asked.yard_port)]


def _application(asked: argparse.Namespace) -> list[str]:
    command = [sys.executable, "-m", "gunicorn", "server.site.wsgi"]
    command += ["--bind", f"{asked.host}:{asked.port}", "--workers", "1", "--threads", "8"]
    command += ["--timeout", "120", "--log-level", "warning"]
    if asked.certificate:
        command += ["--certfile", asked.certificate, "--keyfile", asked.key]
    return command


def _start(
    asked: argparse.Namespace, command: list[str], stdout: int | None = None
) -> subprocess.Popen[bytes]:
    return subprocess.Popen(
        ["setpriv", "--pdeathsig", "TERM", *command],  # ends even where this process is killed
        env=os.environ | _settings(asked),
        stdout=stdout,
        stderr=stdout,
        start_new_session=True,
    )


def _print_address(asked: argparse.Namespace) -> None:
    scheme = "https" if asked.certificate else "http"
    print(f"Grain Tally is at {scheme}://{asked.host}:{asked.port}  (Ctrl-C stops it)", flush=True)
    if asked.certificate:
        authority = f"https://<this machine>:{asked.port}/static/workshop-ca.crt"
        print(f"Phones trust it once they have taken in {authority}", flush=True)


def _stop(children: list[subprocess.Popen[bytes]]) -> None:
    for child in children:
        child.terminate()
    for child in children:
        try:
            child.wait(STOP_SECONDS)
        except subprocess.TimeoutExpired:
            child.kill()


if __name__ == "__main__":
    sys.exit(main())
