"""What people notice of a circuit, and which conditions it makes likelier. Rows of a table.

A symptom orders what stands, and what is measured next to tell it apart. It never strikes anything out, nor lets
anything fall: what somebody noticed is no reading.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from typing import ClassVar

from evenprobe.registry import Listed, Registry


@dataclass(frozen=True, eq=False)
class Symptom(Listed):
    """What was noticed.

    Parameters
    ----------
    id
        As files write it.
    factors
        By how much each condition is likelier, by its id.
    """

    listed_as: ClassVar[str] = "symptom"

    id: str
    factors: Mapping[str, float] = field(default_factory=dict)


SYMPTOMS: Registry[Symptom] = Registry("symptom")

for _symptom in (
    Symptom("trips-at-once", {"live-casing": 4, "neutral-earth-joined-on-run": 5, "line-earth-swapped": 4}),
    Symptom("trips-later", {"neutral-earth-joined-on-run": 4, "live-casing": 3, "borrowed-neutral": 3}),
    Symptom("trips-when", {"live-casing": 5, "neutral-earth-joined-on-run": 4, "borrowed-neutral": 3}),
    Symptom("dead", {"no-supply": 5, "open-line": 8, "open-neutral": 8, "phase-missing": 4, "leg-open": 4}),
    Symptom(
        "dead-after-work",
        {
            "open-line": 6, "open-neutral": 6, "open-earth": 3, "line-neutral-swapped": 4,
            "neutral-earth-swapped": 4, "line-earth-swapped": 4, "same-leg": 3,
        },
    ),
    Symptom(
        "flicker",
        {
            "high-resistance-line": 6, "high-resistance-neutral": 6, "intermittent-joint": 6,
            "neutral-failing-at-source": 5, "neutral-lost-at-source": 5, "neutral-open-at-source": 5, "excess-drop": 3,
        },
    ),
    Symptom(
        "tingle",
        {
            "live-casing": 8, "open-earth": 6, "earth-from-neutral-swapped": 6, "line-earth-swapped": 6,
            "neutral-lost-at-source": 6, "earth-from-neutral": 4, "open-neutral-and-earth": 4,
            "source-not-bonded": 4, "high-resistance-earth": 3, "line-neutral-swapped-open-earth": 4,
        },
    ),
    Symptom("no-pull-in", {"supply-low": 4, "excess-drop": 4, "high-resistance-line": 3, "high-resistance-neutral": 3}),
    Symptom("unlabelled"),
):  # fmt: skip
    SYMPTOMS.add(_symptom)


def likelier(condition: str, noticed: Collection[Symptom]) -> float:
    """By how much a condition is likelier for all that was noticed.

    Parameters
    ----------
    condition
        Its id.
    noticed
        Symptoms.

    Returns
    -------
    float
        One where nothing was noticed that has to do with it.

    Examples
    --------
    >>> tingle, dead = SYMPTOMS["tingle"], SYMPTOMS["dead"]
    >>> likelier("open-earth", [tingle]), likelier("correct", [tingle, dead])
    (6.0, 1.0)
    """
    factor = 1.0
    for symptom in noticed:
        factor *= symptom.factors.get(condition, 1)
    return factor
