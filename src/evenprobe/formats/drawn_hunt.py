"""Hunts without end: a run of boxes or a control chain drawn by chance, and what is at fault somewhere along it."""

from collections.abc import Callable, Mapping
from math import ceil
from typing import Any

import numpy as np

from evenprobe.formats.case_hunt import hunted_along
from evenprobe.practices import PRACTICES
from evenprobe.practising.hunted_through import looks_as_planned
from evenprobe.supplies import SYSTEMS

_FEWEST_BOXES, _MOST_BOXES = 5, 9
_METRES = (3, 12)
"""From one box to the next."""
_ELEMENTS = (
    ("control fuse", "fuse"), ("stop button", "contact"), ("guard limit", "contact"), ("door limit", "contact"),
    ("thermostat", "contact"), ("overload contact", "contact"), ("start button", "contact"),
)  # fmt: skip
_FEWEST_ELEMENTS = 4
_IN_THE_CABLE = 0.3
_SLACK, _AT_LEAST_MORE = 1.5, 5.0
"""A careful person needs no more than so many times what the planner needs, and so many minutes: a proof of death."""
_COMPLAINTS = {
    "short": "The {device} trips the moment we close it. Everything is unplugged.",
    "open": "From somewhere on nothing works any more. Nothing has tripped.",
    "chain": "The machine does not start when we press the button. It ran last week.",
}


def hunt_drawn(rng: np.random.Generator, installation: Mapping[str, Any]) -> dict[str, Any]:
    """What makes a case a hunt: its circuit, what is hidden in it, what the customer says.

    Parameters
    ----------
    rng : Generator
        By which it is drawn.
    installation : mapping
        Of the case, as a survey file has it, with one point on one line.

    Returns
    -------
    dict
        By the keys of a case file.

    Examples
    --------
    >>> from evenprobe.formats.drawn import ONE_LINE
    >>> drawn = hunt_drawn(np.random.default_rng(1), ONE_LINE[1].installation(16, ()))
    >>> sorted(drawn)
    ['circuit', 'complaint', 'hidden', 'minutes', 'solved']
    """
    practice = PRACTICES[installation["practice"]]
    kind = str(rng.choice(list(_DRAWN)))
    circuit, hidden = _DRAWN[kind](rng, installation)
    content = {"format": "even-probe/circuit", "version": 1, "practice": str(practice), "hunt": kind, **circuit}
    hunted = hunted_along(content, hidden["at"], hidden.get("in_the_cable", False), hidden.get("conductor", "L"))
    return {
        "complaint": practice.in_words(_COMPLAINTS[kind]),
        "circuit": content,
        "hidden": {"condition": "correct", "seed": int(rng.integers(2**31)), **hidden},
        "solved": {"found": True},
        "minutes": float(ceil(_SLACK * looks_as_planned(hunted)[-1].at_s / 60 + _AT_LEAST_MORE)),
    }


def _boxes(rng: np.random.Generator, installation: Mapping[str, Any]) -> list[dict[str, Any]]:
    names = [f"box {number}" for number in range(1, int(rng.integers(_FEWEST_BOXES, _MOST_BOXES + 1)) + 1)]
    before = ["board", *names]
    first = float(installation["points"][0]["circuit"]["length_m"])
    metres = [first, *(float(m) for m in rng.integers(*_METRES, size=len(names) - 1))]
    return [
        {"id": name, "after": after, "length_m": length}
        for name, after, length in zip(names, before, metres, strict=False)
    ]


def _short(rng: np.random.Generator, installation: Mapping[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    boxes = _boxes(rng, installation)
    between = [["L", "PE"], ["L", "N"], ["N", "PE"]][int(rng.integers(3))]
    circuit = {"points": boxes, "between": between, "conductor": installation["points"][0]["circuit"]["conductor"]}
    return circuit, _somewhere(rng, boxes)


def _open(rng: np.random.Generator, installation: Mapping[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    boxes = _boxes(rng, installation)
    circuit = {"points": boxes, "between": ["L", "N"], "conductor": installation["points"][0]["circuit"]["conductor"]}
    conductor = str(rng.choice(["L", "N"]))
    return circuit, {**_somewhere(rng, boxes[:-1]), "conductor": conductor}


def _chain(rng: np.random.Generator, installation: Mapping[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    count = int(rng.integers(_FEWEST_ELEMENTS, len(_ELEMENTS) + 1))
    kept = np.sort(rng.choice(len(_ELEMENTS), size=count, replace=False))
    volts = SYSTEMS[installation["supply"]["system"]].nominal_volts
    elements: list[dict[str, Any]] = [dict(zip(("id", "kind"), _ELEMENTS[each], strict=True)) for each in kept]
    elements.append({"id": "coil K1", "kind": "coil", "rated_v": volts})
    return {"supply_v": volts, "elements": elements}, {"at": elements[int(rng.integers(len(elements)))]["id"]}


def _somewhere(rng: np.random.Generator, boxes: list[dict[str, Any]]) -> dict[str, Any]:
    at = boxes[int(rng.integers(len(boxes)))]["id"]
    return {"at": at, "in_the_cable": bool(rng.random() < _IN_THE_CABLE)}


_Drawn = Callable[[np.random.Generator, Mapping[str, Any]], tuple[dict[str, Any], dict[str, Any]]]
_DRAWN: dict[str, _Drawn] = {"short": _short, "open": _open, "chain": _chain}
