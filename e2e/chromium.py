"""Debian's Chromium: the one without windows of its own takes half the time, where it is there."""

from pathlib import Path

_WITHOUT_WINDOWS = Path("/usr/bin/chromium-headless-shell")
CHROMIUM = str(_WITHOUT_WINDOWS if _WITHOUT_WINDOWS.exists() else Path("/usr/bin/chromium"))
FLAGS = [
    *("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"),
    *("--disable-background-networking", "--disable-component-update"),
]
