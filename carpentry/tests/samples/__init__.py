"""Sample files, invented: good and broken input as builders bring it."""

from pathlib import Path

FOLDER = Path(__file__).parent


def sample(name: str) -> bytes:
    """The content of a sample file."""
    return (FOLDER / name).read_bytes()
