"""A change in words: what a field is called, and how what stands in it is said."""

from collections.abc import Mapping
from typing import Any

from history.models import Change

_CALLED: Mapping[str, str] = {
    "rating_a": "device, A",
    "residual_ma": "residual current device, mA",
    "curve": "trip curve",
    "length_m": "cable from the board, m",
    "protected_by": "behind the protective outlet",
    "usual_leads": "usual leads",
    "rated_v": "rated, V",
    "test_v": "test voltages, V",
    "steps_v": "steps, V",
    "proved": "proved by its maker's procedure",
    "calibrated_until": "calibrated until",
    "proof_window_min": "a proof holds, min",
    "unattended_min": "left alone at most, min",
    "taken_over_at": "said to be the crew's",
    "taken_over_by": "by",
    "joined_at": "joined",
    "until": "until",
}
_MOVED = ("site", "supply", "board", "circuit")
_OUT, _LEFT = "retired_at", "left_at"


def said(change: Change) -> tuple[str, str]:
    """The change in a few words, and what stood there before."""
    called = f"{change.what.capitalize()} {change.name}"
    if not change.before and _OUT not in change.after and _LEFT not in change.after:
        return f"{called}: new", _listed(change.after)
    now, was = [], []
    for key in {**change.after, **change.before}:
        if key in (_OUT, _LEFT):
            now.append(_IN_AND_OUT[key][key in change.after])
            continue
        title = "hangs on" if key in _MOVED else _title(key)
        now.append(f"{title} {_value(change.after.get(key))}")
        was.append(f"{title} {_value(change.before.get(key))}")
    return f"{called}: {', '.join(now)}", f"before: {', '.join(was)}" if was else ""


_IN_AND_OUT = {_OUT: ("back in use", "taken out of use"), _LEFT: ("back in the crew", "left the crew")}


def _listed(values: Mapping[str, Any]) -> str:
    return ", ".join(f"{_title(key)} {_value(value)}" for key, value in values.items() if key not in ("name", "label"))


def _title(key: str) -> str:
    return _CALLED.get(key, key.replace("_", " "))


def _value(value: Any) -> str:
    match value:
        case None | "" | []:
            return "none"
        case bool():
            return "yes" if value else "no"
        case float() | int():
            return f"{value:g}"
        case {"name": str(name), "id": _}:
            return name
        case dict():
            return ", ".join(f"{_title(str(key))} {_value(one)}" for key, one in value.items())
        case list():
            return ", ".join(_value(one) for one in value)
        case _:
            return str(value)
