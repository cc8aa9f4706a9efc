"""Interpretations: derived on request by the core, and kept by content so that none is made twice."""

from collections.abc import Callable, Sequence
from concurrent.futures import Future
from threading import Lock
from typing import Any, TypeVar

from django.core.cache import cache

from evenprobe.formats import InstrumentEntry
from evenprobe.formats.answers import CapabilitiesOut, InterpretationOut, LoadsOut
from evenprobe.interpretation import PointInterpretation
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.loads import draws, loops
from evenprobe.this_core import fingerprint
from readings import questions
from readings.interpreters import ask, ask_ahead
from readings.point_view import PointView

T = TypeVar("T")


def interpretation_of(
    view: PointView, cannot: Sequence[Obstacle] = (), noticed: Sequence[str] = ()
) -> InterpretationOut:
    """The answer for one point, as `evenprobe interpret` gives it.

    `cannot`: what no next test may need. `noticed`: symptoms, which order what stands and change no verdict, so that
    lists do without.
    """
    about = list(cannot), list(noticed)
    return _kept(_beside(cannot, noticed), view, lambda: ask(view.sort, questions.interpretation, view.survey, *about))


def at_once(view: PointView, cannot: Sequence[Obstacle] = (), noticed: Sequence[str] = ()) -> InterpretationOut | None:
    """The verdict alone, where it is certain and the whole answer is not known; None where it takes or is the whole."""
    if _key(_beside(cannot, noticed), view) in cache:
        return None
    return ask(view.sort, questions.at_once, view.survey)


def result_of(view: PointView) -> PointInterpretation:
    """The same as the core gives it, for what asks more of it."""
    return _kept("result-", view, lambda: ask(view.sort, questions.result, view.survey, [], []))


def _beside(cannot: Sequence[Obstacle], noticed: Sequence[str]) -> str:
    return "".join(f"{each}-" for each in (*cannot, *noticed))


def reads_like(view: PointView) -> list[dict[str, Any]]:
    """Supply systems the point's readings can be all right on, the likeliest first."""
    return _kept("supplies-", view, lambda: ask(view.sort, questions.supplies, view.survey))


def loads_of(view: PointView) -> LoadsOut:
    """What the point's circuit draws against its device, and what known loads say of the loop."""
    return _kept("loads-", view, lambda: _loads(view))


_UNDER_WAY: dict[str, "Future[Any]"] = {}
_ONE_AT_A_TIME = Lock()


def _kept(kind: str, view: PointView, made: Callable[[], T]) -> T:
    """What the core makes of a view, from the cache where this core made it before.

    Who asks while it is being made waits for the same.
    """
    key = _key(kind, view)
    answer: T | None = cache.get(key)
    if answer is not None:
        return answer
    with _ONE_AT_A_TIME:
        under_way = _UNDER_WAY.get(key)
        own: Future[Any] = Future()
        if under_way is None:
            _UNDER_WAY[key] = own
    if under_way is not None:
        found: T = under_way.result()
        return found
    try:
        answer = made()
        cache.set(key, answer)
        own.set_result(answer)
    except BaseException as error:
        own.set_exception(error)
        raise
    finally:
        del _UNDER_WAY[key]
    return answer


def _key(kind: str, view: PointView) -> str:
    return f"{kind}{fingerprint()}-{view.digest}"


def _loads(view: PointView) -> LoadsOut:
    facts, circuit = view.facts, view.entry.circuit
    drawn = draws(facts, view.readings, circuit.curve if circuit else None)
    return LoadsOut.of(drawn, loops(facts, view.readings), facts.circuit.rating_a, facts.practice)


def make_ready(view: PointView) -> None:
    """Beside the answer that opens a point: what its next readings will need, so that they are answered at once."""
    ask_ahead(view.sort, questions.made_ready, view.survey)


def capabilities_of(view: PointView, tester: InstrumentEntry) -> CapabilitiesOut:
    """What a tester can strike out at a point as its readings leave it, and what not."""
    return ask(view.sort, questions.capabilities, view.survey, tester)
