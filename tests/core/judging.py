"""Tests as the file has them, judged: `judged("continuity", measured_ohm=0.3)`."""

import json

from hypothesis import strategies as st

import evenprobe


def shown(low, high):
    """What a display can show: nothing is a millionth of a millionth of anything."""
    return st.floats(low, high).map(lambda value: round(value, 12))


ORDER = ("pass", "note", "borderline", "fail")
"""From best to worst, of what counts."""


def file_of(*tests, practice="continental"):
    return {"format": "even-probe/tests", "version": 1, "practice": practice, "tests": list(tests)}


def judged(kind, *, practice="continental", **given):
    """The answer for one test, through the file as anybody would send it."""
    test = {"id": "t", "kind": kind, **{k: v for k, v in given.items() if v is not None}}
    answer = evenprobe.judge(file_of(test, practice=practice)).as_json()
    (one,) = json.loads(json.dumps(answer, allow_nan=False))["tests"]
    return one


def result(kind, **given):
    return judged(kind, **given)["result"]
