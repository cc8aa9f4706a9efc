"""A change in words: what a field is called, and how what stands in it is said."""

from collections.abc import Callable, Mapping
from typing import Any

from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from history.models import Change

_CALLED: Mapping[str, tuple[str, str]] = {
    "rating_a": ("device", "A"),
    "residual_ma": ("residual-current device", "mA"),
    "curve": ("trip curve", ""),
    "length_m": ("cable from the board", "m"),
    "protected_by": ("behind the protective outlet", ""),
    "usual_leads": ("usual leads", ""),
    "category": ("category", ""),
    "rated_v": ("rated", "V"),
    "test_v": ("tests with", "V"),
    "steps_v": ("steps", "V"),
    "input_ohm": ("input", "Ω"),
    "ohm": ("leads", "Ω"),
    "resolution": ("resolution", "V"),
    "accuracy_percent": ("accuracy", "% of reading"),
    "accuracy_counts": ("accuracy", "counts"),
    "test_ma": ("test current", "mA"),
    "proved": ("proved by its maker's procedure", ""),
    "proof_window_min": ("a proof of the tester holds", "min"),
    "unattended_min": ("left alone at most", "min"),
    "taken_over_at": ("said to be the crew's", ""),
    "taken_over_by": ("by", ""),
}
"""By field what it is called, and the unit of what stands in it; what is not here is called as it is."""
_NAMES = {"name", "label"}
_HANGS_ON = ("site", "supply", "board", "circuit")
_OUT, _LEFT = "retired_at", "left_at"
_IN_AND_OUT = {_OUT: ("back in use", "taken out of use"), _LEFT: ("back in the crew", "left the crew")}


def said(change: Change) -> tuple[str, str]:
    """The change in a few words, and what stood there before."""
    was_called = next((change.before[key] for key in _NAMES if key in change.before), change.name)
    called = f"{change.what.capitalize()} {was_called}"
    if not change.before and not _IN_AND_OUT.keys() & change.after:
        values = (_told(key, value) for key, value in change.after.items() if key not in _NAMES and value is not False)
        return f"{called}: new", ", ".join(values)
    now, was = [], []
    for key in {**change.after, **change.before}:
        if key in _IN_AND_OUT:
            now.append(_IN_AND_OUT[key][key in change.after])
            continue
        if key in _NAMES:
            now.append(f"now called {change.after.get(key, 'nothing')}")
            continue
        now.append(_told(key, change.after.get(key)))
        was.append(_told(key, change.before.get(key)))
    return f"{called}: {', '.join(now)}", f"before: {', '.join(was)}" if was else ""


def _told(key: str, value: Any) -> str:
    title, unit = ("on", "") if key in _HANGS_ON else _CALLED.get(key, (key.replace("_", " "), ""))
    shown = _BY_TITLE[key](value) if key in _BY_TITLE else _value(value)
    return f"{title} none" if shown == "" else f"{title} {shown} {unit}".rstrip()


_BY_TITLE: Mapping[str, Callable[[Any], str]] = {
    "system": lambda system: SYSTEMS[system].title if system in SYSTEMS else _value(system),
    "practice": lambda practice: PRACTICES[practice].name if practice in PRACTICES else _value(practice),
}


def _value(value: Any) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else "no"
        case float() | int():
            return f"{value:g}"
        case {"name": str(name), "id": _}:
            return name
        case dict():
            return ", ".join(_told(str(key), one) for key, one in value.items())
        case list():
            return ", ".join(_value(one) for one in value)
        case _:
            return str(value)
