"""Verdicts, results and states of a sign-off, made again from its evidence by this core."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from evenprobe.entries import parse
from evenprobe.formats import IsolationFile, SurveyFile, dead_tests_file
from evenprobe.formats.answers import InterpretationOut, IsolationOut, TestsOut
from evenprobe.formats.signed import SignedContent, SignedPoint
from evenprobe.interpretation import Verdict, interpret
from evenprobe.isolation import isolation


@dataclass(frozen=True)
class JudgedAgain:
    """One of them. `now`: None where the file holds nothing to make it of."""

    id: str
    name: str
    signed: str
    now: str | None


def judged_again(content: SignedContent) -> Iterator[JudgedAgain]:
    """Everything of a sign-off that can be judged, in its order.

    Raises
    ------
    FormatError
        Where its evidence cannot be used.
    """
    points, tests, proofs = _points(content), _tests(content), _proofs(content)
    for circuit in content.circuits:
        for point in circuit.points:
            yield from _point(point, points.get(point.id))
        for test in circuit.dead_tests:
            yield JudgedAgain(test.id, test.title, test.result, tests.get(test.id))
        for proof in circuit.proofs:
            yield JudgedAgain(proof.id, proof.name, proof.state, proofs.get(proof.id))


def _point(point: SignedPoint, now: InterpretationOut | None) -> Iterator[JudgedAgain]:
    if now is None and point.verdict == Verdict.UNTESTED:
        return
    yield JudgedAgain(point.id, point.name, point.verdict, now.verdict if now else None)
    for what, signed, again in (
        ("insulation", point.insulation, now.insulation if now else None),
        ("protective device", point.protection, now.protection if now else None),
    ):
        yield JudgedAgain(point.id, f"{point.name}, {what}", signed.state, again.state if again else None)


def _points(content: SignedContent) -> Mapping[str, InterpretationOut]:
    if content.evidence.survey is None:
        return {}
    file = parse(SurveyFile, content.evidence.survey)
    return {
        point.id: InterpretationOut.of(interpret(file.facts(point), file.readings(point), file.kit()))
        for point in file.points
    }


def _tests(content: SignedContent) -> Mapping[str, str]:
    if content.evidence.tests is None:
        return {}
    file: Any = parse(dead_tests_file(), content.evidence.tests)
    return {test.id: test.result for test in TestsOut.of(file.outcomes()).tests}


def _proofs(content: SignedContent) -> Mapping[str, str]:
    """By the order of the proofs, for a log has no id of its own."""
    ids = [proof.id for circuit in content.circuits for proof in circuit.proofs]
    logs = content.evidence.isolations
    found = (IsolationOut.of(isolation(parse(IsolationFile, log).log())) for log in logs)
    return {name: state.state for name, state in zip(ids, found, strict=False)}
