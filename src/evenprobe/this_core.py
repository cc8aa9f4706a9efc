"""Which core this is: its version and a hash of its source, so that an answer can say what it was made by."""

import hashlib
from functools import cache
from importlib.metadata import version
from importlib.resources import files
from importlib.resources.abc import Traversable

_PACKAGE = "evenprobe"
_DIGITS = 16


@cache
def fingerprint() -> str:
    """Hexadecimal digits of the SHA-256 of the version and of every module of the core."""
    digest = hashlib.sha256(version("even-probe").encode())
    for module in _modules(files(_PACKAGE)):
        digest.update(module.read_bytes())
    return digest.hexdigest()[:_DIGITS]


@cache
def this_core() -> str:
    """Version and fingerprint, as a sign-off names them."""
    return f"{version('even-probe')}+{fingerprint()}"


def _modules(folder: Traversable) -> list[Traversable]:
    inside = sorted(folder.iterdir(), key=lambda one: one.name)
    found = [one for one in inside if one.name.endswith(".py")]
    return [*found, *(module for one in inside if one.is_dir() for module in _modules(one))]
