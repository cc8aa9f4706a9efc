"""The core as a library: one function a command, each from a file's content to a model of its answer.

Every function takes what its file holds, as plain data or as the file's own model, and raises `FormatError` with the
path of what is wrong.
"""

from collections.abc import Mapping
from typing import Any, TypeVar

from pydantic import BaseModel

from evenprobe.entries import FormatError as FormatError
from evenprobe.entries import parse
from evenprobe.formats import (
    CaseFile,
    CircuitFile,
    IsolationFile,
    KitFile,
    NetworkFile,
    SurveyFile,
    TestsFile,
    circuit_file,
    dead_tests_file,
)
from evenprobe.formats.answers import (
    BoardMapOut,
    ChainHuntOut,
    FitnessOut,
    ForecastOut,
    GuidedHuntOut,
    HuntOut,
    IsolationOut,
    NetworkOut,
    PracticeOut,
    RunHuntOut,
    SuppliesOut,
    SurveyOut,
    TestsOut,
    VerificationOut,
)
from evenprobe.formats.circuits import ChainFile, GuidedFile, MapFile
from evenprobe.interpretation import ensemble_for, forecast, what_supply
from evenprobe.interpretation import interpret as interpret_point
from evenprobe.isolation import isolation
from evenprobe.practising import as_planned
from evenprobe.testers.fitness import fitness
from evenprobe.verification import verify_file

File = TypeVar("File", bound=BaseModel)
Content = Mapping[str, Any]


def _checked(model: type[File], content: Content | File) -> File:
    return content if isinstance(content, model) else parse(model, content)


def interpret(survey: Content | SurveyFile) -> SurveyOut:
    """What the readings of a survey can still mean, by elimination, point by point.

    Parameters
    ----------
    survey
        A survey file's content.

    Returns
    -------
    SurveyOut
        Of each point its verdict, every condition that can be true there with whether it stands and why not, what
        was held against which limit, and the next tests worth taking. Volts, ohms, amperes and hertz.

    Raises
    ------
    FormatError
        Where the survey cannot be used, with the path of each problem.

    Examples
    --------
    >>> volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 231.0}
    >>> outlet = {"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": [volts]}
    >>> answer = interpret(
    ...     {
    ...         "format": "even-probe/survey",
    ...         "version": 1,
    ...         "practice": "british",
    ...         "supply": {"system": "230", "earthing": "TN-S"},
    ...         "points": [outlet],
    ...     }
    ... )
    >>> answer.points[0].verdict
    'unconfirmed'
    """
    file = _checked(SurveyFile, survey)
    return SurveyOut.of(
        (
            point.id,
            interpret_point(
                file.facts(point), file.readings(point), file.kit(), cannot=point.cannot, noticed=point.noticed
            ),
        )
        for point in file.points
    )


def predict(survey: Content | SurveyFile, condition: str) -> ForecastOut:
    """What each pair and each lamp would show under one condition, at a survey's one point.

    Parameters
    ----------
    survey
        A survey file's content, with one point.
    condition
        The id of a condition that can be true there.

    Raises
    ------
    FormatError
        Where the survey cannot be used, or the condition cannot be true there, naming those that can.
    """
    file = _checked(SurveyFile, survey)
    facts = file.facts(file.single_point())
    if facts.no_lines:
        raise FormatError([("points[0].terminals", facts.no_lines)])
    ensemble = ensemble_for(facts)
    known = [c.id for c in ensemble.conditions]
    if condition not in known:
        raise FormatError([("--condition", f"{condition!r} cannot be true here; use one of {', '.join(known)}")])
    return ForecastOut.of(forecast(ensemble, condition))


def identify(survey: Content | SurveyFile) -> SuppliesOut:
    """Which supply the readings of each point can be all right on, the likeliest first.

    Raises
    ------
    FormatError
        Where the survey cannot be used.
    """
    file = _checked(SurveyFile, survey)
    found = [(point.id, what_supply(file.facts(point), file.readings(point))) for point in file.points]
    return SuppliesOut.of(found, file.practice)


def solve(network: Content | NetworkFile) -> NetworkOut:
    """Open-circuit volts and impedance, complex, between pairs of nodes of an explicit network.

    Raises
    ------
    FormatError
        Where the network cannot be used, or a node hangs.

    Examples
    --------
    >>> branches = [{"between": ["a", "earth"], "ohm": 2.0, "emf_v": 10.0}, {"between": ["a", "earth"], "ohm": 2.0}]
    >>> network = {"format": "even-probe/network", "version": 1, "frequency_hz": 0, "earth": "earth"}
    >>> abs(solve({**network, "branches": branches, "ask": [["a", "earth"]]}).ask[0].open_v[0])
    5.0
    """
    return _checked(NetworkFile, network).solve()


def fit(kit: Content | KitFile) -> FitnessOut:
    """Whether a tester, its leads and its adapters are fit for a task, and why not.

    Raises
    ------
    FormatError
        Where the kit file cannot be used.
    """
    file = _checked(KitFile, kit)
    return FitnessOut.of(fitness(file.the_task(), file.held()))


def isolate(log: Content | IsolationFile) -> IsolationOut:
    """The state of a proof of isolation, a pure function of its log, and the one next thing to do.

    Raises
    ------
    FormatError
        Where the log cannot be used.
    """
    return IsolationOut.of(isolation(_checked(IsolationFile, log).log()))


def judge(tests: Content | TestsFile) -> TestsOut:
    """What dead tests, trips, loads and components come to against their limits.

    Raises
    ------
    FormatError
        Where the tests file cannot be used.

    Examples
    --------
    >>> test = {"id": "t", "kind": "battery", "chemistry": "lead-acid-12", "volts": 12.7}
    >>> file = {"format": "even-probe/tests", "version": 1, "practice": "british", "tests": [test]}
    >>> judge(file).tests[0].result
    'pass'
    """
    file = tests if isinstance(tests, TestsFile) else parse(dead_tests_file(), tests)
    return TestsOut.of(file.outcomes())


def practise(case: Content | CaseFile) -> PracticeOut:
    """A practice case played as the planner would, reading by reading, and whether it can be solved as it claims.

    Raises
    ------
    FormatError
        Where the case cannot be used.
    """
    file = _checked(CaseFile, case)
    return PracticeOut.of(as_planned(file.case()), file.complaint)


def hunt(circuit: Content | CircuitFile) -> HuntOut:
    """Where a fault on a run, a chain or a board can still be, or how far a guided hunt is, and what comes next.

    Parameters
    ----------
    circuit
        A circuit file's content: what is hunted, where, and what was seen so far.

    Returns
    -------
    RunHuntOut, ChainHuntOut, BoardMapOut or GuidedHuntOut
        By what is hunted. Minutes, metres, ohms and watts.

    Raises
    ------
    FormatError
        Where the circuit file cannot be used, with the path of each problem.

    Examples
    --------
    >>> points = [
    ...     {"id": "p1", "after": "board", "length_m": 8.0},
    ...     {"id": "p2", "after": "p1", "length_m": 5.0},
    ...     {"id": "p3", "after": "p2", "length_m": 5.0},
    ... ]
    >>> head = {"format": "even-probe/circuit", "version": 1, "practice": "british", "hunt": "short"}
    >>> answer = hunt({**head, "points": points, "seen": [{"at": "board", "onward": True}]})
    >>> answer.next.at, answer.next.expected_minutes, answer.in_order_minutes
    ('p2', 11.9, 13.2)
    """
    file = _checked(circuit_file(circuit), circuit) if not isinstance(circuit, CircuitFile) else circuit
    if isinstance(file, ChainFile):
        return ChainHuntOut.of(file.hunted())
    if isinstance(file, MapFile):
        return BoardMapOut.of(file.hunted())
    if isinstance(file, GuidedFile):
        return GuidedHuntOut.of(file.practice, file.hunted())
    return RunHuntOut.of(file.run, file.hunted())


def verify(saved: bytes) -> VerificationOut:
    """Whether a saved sign-off is as it was signed, and whether this core makes the same of its readings.

    Parameters
    ----------
    saved
        The file, byte for byte.

    Returns
    -------
    VerificationOut
        `sound` where nothing was changed and nothing is missing; otherwise what and where.

    Raises
    ------
    FormatError
        Where the file is no sign-off at all.

    Examples
    --------
    >>> verify(b"{}")
    Traceback (most recent call last):
    evenprobe.entries.problems.FormatError: format: is missing
    version: is missing
    chain: is missing
    content: is missing
    """
    return verify_file(saved)
