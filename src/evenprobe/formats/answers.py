"""Answers as JSON, rounded for reading: volts to 0.1, ohms and shares to three figures."""

from collections.abc import Iterable
from math import isfinite
from typing import Any

from evenprobe.interpretation import (
    ConditionOutcome,
    Forecast,
    Judgement,
    NextTest,
    PointInterpretation,
    Reason,
    SightHere,
    Story,
    SupplyGuess,
)
from evenprobe.practices import Practice
from evenprobe.quantities import Measurement
from evenprobe.rounding import figures, rounded


def interpretation_answer(points: Iterable[tuple[str, PointInterpretation]]) -> dict[str, Any]:
    return {"points": [{"id": name, **point_answer(result)} for name, result in points]}


def point_answer(result: PointInterpretation) -> dict[str, Any]:
    return {
        "verdict": str(result.verdict),
        "summary": result.summary,
        "conditions": [_condition(c, result.practice) for c in result.conditions],
        "judgements": [_judgement(j) for j in result.judgements],
        "retake": list(result.retake),
        "next_tests": [_next_test(t) for t in result.next_tests],
        "next_tests_note": result.next_tests_note,
        "not_counted": [{"reading": n.reading, "why": n.why, "warns": n.warns} for n in result.not_counted],
        "stories": [_story(s) for s in result.stories],
        "healthy_band": list(result.healthy_band) if result.healthy_band else None,
    }


def _condition(outcome: ConditionOutcome, practice: Practice) -> dict[str, Any]:
    condition = outcome.condition
    return {
        "id": condition.id,
        "title": condition.in_words(condition.title, practice),
        "notice": condition.symptom,
        "look_for": condition.cause,
        "mend": condition.remedy,
        "severity": outcome.severity.label,
        "standing": outcome.standing,
        "strained": outcome.strained,
        "likelihood": figures(outcome.likelihood),
        "lines": [list(lines) for lines in outcome.lines],
        "reasons": [_reason(r) for r in outcome.reasons],
    }


def _judgement(judgement: Judgement) -> dict[str, Any]:
    limit = judgement.limit
    return {
        "limit": limit.id,
        "reading": judgement.reading,
        "result": str(judgement.result),
        "low": limit.band.low,
        "high": limit.band.high if isfinite(limit.band.high) else None,
        "unit": limit.unit,
        "source": limit.source,
        "text": judgement.text,
    }


def circumstance(measurement: Measurement) -> dict[str, Any]:
    """The circumstances that are not as they are found."""
    named: dict[str, Any] = {
        "load_here_a": measurement.load_here_a,
        "load_elsewhere_a": measurement.load_elsewhere_a,
        "load_between": None if measurement.load_between is None else [str(t) for t in measurement.load_between],
        "device": "open" if measurement.device == "open" else None,
        "neutral": "lifted" if measurement.neutral == "lifted" else None,
        "input": "low-z" if measurement.input == "low-z" else None,
        "test_ma": measurement.test_ma,
    }
    return {key: value for key, value in named.items() if value is not None}


def _next_test(test: NextTest) -> dict[str, Any]:
    measurement = test.measurement
    return {
        "quantity": str(measurement.quantity),
        "from": measurement.from_ and str(measurement.from_),
        "to": measurement.to and str(measurement.to),
        "instrument": measurement.instrument.id,
        "instrument_kind": str(measurement.instrument.kind),
        "circumstance": circumstance(measurement),
        "rules_out": list(test.rules_out),
        "information_bits": figures(test.information_bits),
        "seconds": round(test.seconds),
        "why": test.why,
    }


def supplies_answer(points: Iterable[tuple[str, Iterable[SupplyGuess]]], practice: Practice) -> dict[str, Any]:
    return {"points": [{"id": name, "supplies": [_guess(g, practice) for g in guesses]} for name, guesses in points]}


def _guess(guess: SupplyGuess, practice: Practice) -> dict[str, Any]:
    return {
        "system": guess.system.id,
        "title": guess.system.title,
        "earthing": str(guess.earthing),
        "fits": guess.fits,
        "likelihood": figures(guess.likelihood),
        "conditions": [{"id": c.id, "title": c.in_words(c.title, practice)} for c in guess.conditions],
        "reasons": [_reason(guess.reason)] if guess.reason else [],
    }


def _reason(reason: Reason) -> dict[str, Any]:
    return {
        "reading": reason.reading,
        "would_show": [rounded(v, reason.quantity.unit) for v in reason.would_show],
        "unit": reason.quantity.unit,
        "seen": rounded(reason.seen, reason.quantity.unit),
        "text": reason.text,
    }


def sight_answer(sight: SightHere, practice: Practice) -> dict[str, Any]:
    """Titles of what a tester can strike out here and what it cannot, worst first."""
    return {
        key: [{"id": c.id, "title": c.in_words(c.title, practice), "severity": c.severity.label} for c in conditions]
        for key, conditions in (("can", sight.can), ("cannot", sight.cannot))
    }


def _story(story: Story) -> dict[str, Any]:
    return {
        "title": story.title,
        "conditions": list(story.conditions),
        "severity": story.severity.label,
        "potentials": {str(t): [round(v, 1) for v in span] for t, span in story.potentials.items()},
        "phasors": {str(t): [round(v.real, 1), round(v.imag, 1)] for t, v in story.phasors.items()},
    }


def forecast_answer(forecast: Forecast) -> dict[str, Any]:
    return {
        "condition": forecast.condition,
        "pairs": [
            {
                "from": str(p.from_),
                "to": str(p.to),
                "high_z": [round(v, 1) for v in p.high_z],
                "low_z": [round(v, 1) for v in p.low_z],
            }
            for p in forecast.pairs
        ],
        "lamps": forecast.lamps,
    }
