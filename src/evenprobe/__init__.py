"""The core of Even Probe: what electrical readings can still mean, by elimination on one network model.

Pure computation. No HTTP, no database, no clock; `cli` alone reads the files it is given.

One function a command, each from a file's content to a model of its answer: `interpret`, `predict`, `identify`,
`solve`, `fit`, `isolate`, `judge`, `hunt`, `practise`, `verify`; and `FormatError`, which says where a file is wrong.
They are imported when they are first used, so that importing the package costs nothing.
"""

from importlib import import_module
from importlib.metadata import version
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from evenprobe.entries import FormatError
    from evenprobe.library import fit, hunt, identify, interpret, isolate, judge, practise, predict, solve, verify

__version__ = version("even-probe")
__all__ = [
    "FormatError",
    "fit",
    "hunt",
    "identify",
    "interpret",
    "isolate",
    "judge",
    "practise",
    "predict",
    "solve",
    "verify",
]


def __getattr__(name: str) -> Any:
    if name in __all__:
        return getattr(import_module("evenprobe.library"), name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
