"""A case made of a real point: what it is and what is at hand, and no name of anything."""

from collections import Counter
from collections.abc import Sequence
from typing import Any

from evenprobe.conditions import CONDITIONS
from evenprobe.entries import Strict, parse
from evenprobe.formats.case import AT_MOST, MINUTES, CaseFile
from evenprobe.formats.complaints import NO_COMPLAINT, complaints_of
from evenprobe.formats.kit import InstrumentEntry
from evenprobe.formats.survey import CircuitEntry, SurveyFile

_UNNAMED = "point"
_TELLS_WHOSE = {"id", "label", "known_issue", "calibration_due", "leads", "adapters"}
"""Of a tester: what it is called, what was said of it, its dates, and what hangs on it with names of its own."""
_NAMED_IN_A_CIRCUIT = {"label", "board"}


def case_of(
    survey: SurveyFile,
    testers: Sequence[InstrumentEntry],
    *,
    hidden: str,
    seed: int,
    step: int,
    title: str,
    complaint: str = "",
) -> CaseFile:
    """A case with the facts of a real point, so that it can be practised before anybody goes there, and shared.

    Parameters
    ----------
    survey : SurveyFile
        Of one point; its readings are left behind, as is every name.
    testers : sequence of InstrumentEntry
        What is to be at hand, by what each is and can.
    hidden : str
        Id of the condition that is true there.
    seed : int
        Which of the many ways it can be, and how far off the testers are.
    step : int
        How hard it is, from 1 to 4.
    title, complaint : str
        What it is called, and what the customer says; what is usually noticed of it where nothing is given.

    Returns
    -------
    CaseFile
        Solved when few conditions are left, or as few as what is at hand can tell.

    Raises
    ------
    FormatError
        For what cannot be true there, or a step that there is not.

    Examples
    --------
    >>> own = {"format": "even-probe/survey", "version": 1, "practice": "british",
    ...        "supply": {"system": "230", "earthing": "TN-S"}, "label": "Fennwick Weaving Shed",
    ...        "points": [{"id": "p1", "kind": "outlet", "label": "Dye room socket", "terminals": ["L", "N", "PE"],
    ...                    "circuit": {"label": "Dye room", "rating_a": 32}}]}
    >>> made = case_of(parse(SurveyFile, own), [], hidden="open-earth", seed=1, step=1, title="A socket")
    >>> point = made.installation.points[0]
    >>> point.label, point.circuit.label, point.circuit.rating_a, made.installation.label
    (None, None, 32.0, None)
    """
    point, truth = survey.single_point(), CONDITIONS.get(hidden)
    heard = [NO_COMPLAINT] if truth is None else complaints_of(truth)
    data: dict[str, Any] = {
        "format": "even-probe/case",
        "version": 1,
        "title": title,
        "step": step,
        "complaint": complaint or heard[seed % len(heard)],
        "installation": {
            "format": survey.format,
            "version": survey.version,
            "practice": str(survey.practice),
            "supply": _written(point.supply or survey.supply),
            "instruments": _unnamed(testers),
            "points": [
                {
                    "id": _UNNAMED,
                    "kind": point.kind,
                    "terminals": list(point.terminals),
                    "circuit": _written(point.circuit or CircuitEntry(), but=_NAMED_IN_A_CIRCUIT),
                    "cannot": list(point.cannot),
                }
            ],
        },
        "hidden": {"condition": hidden, "seed": seed},
        "solved": {"at_most": AT_MOST},
        "minutes": MINUTES.get(step, MINUTES[1]),
    }
    return parse(CaseFile, data)


def _unnamed(testers: Sequence[InstrumentEntry]) -> list[dict[str, Any]]:
    """Each called by its kind, and by a number where there are several of a kind that are not the same."""
    kinds: Counter[str] = Counter()
    found: dict[str, dict[str, Any]] = {}
    for tester in testers:
        told = _written(tester, but=_TELLS_WHOSE)
        if told in found.values():
            continue
        kind = told["kind"]
        kinds[kind] += 1
        found[kind if kinds[kind] == 1 else f"{kind} {kinds[kind]}"] = told
    return [{"id": name, **told} for name, told in found.items()]


def _written(entry: Strict, *, but: set[str] | None = None) -> dict[str, Any]:
    return entry.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=but)
