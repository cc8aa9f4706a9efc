"""Interpretations: derived on request by the core, and kept by content so that none is made twice."""

import threading
from collections.abc import Callable, Sequence
from typing import Any, TypeVar

from django.core.cache import cache

from evenprobe.conditions import SYMPTOMS
from evenprobe.formats.answers import CapabilitiesOut, InterpretationOut, LoadsOut
from evenprobe.interpretation import PointInterpretation, capabilities_here, ensemble_for, interpret, what_supply
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.loads import draws, loops
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import Instrument
from evenprobe.this_core import fingerprint
from readings.point_view import PointView

T = TypeVar("T")


def interpretation_of(
    view: PointView, cannot: Sequence[Obstacle] = (), noticed: Sequence[str] = ()
) -> InterpretationOut:
    """The answer for one point, as `evenprobe interpret` gives it.

    `cannot`: what no next test may need. `noticed`: symptoms, which order what stands and change no verdict, so that
    lists do without.
    """
    return _kept(_beside(cannot, noticed), view, lambda: InterpretationOut.of(result_of(view, cannot, noticed)))


def result_of(view: PointView, cannot: Sequence[Obstacle] = (), noticed: Sequence[str] = ()) -> PointInterpretation:
    """The same as the core gives it, for what asks more of it."""

    def made() -> PointInterpretation:
        symptoms = [SYMPTOMS[name] for name in noticed]
        return interpret(view.facts, view.readings, view.checked.kit(), cannot=cannot, noticed=symptoms)

    return _kept(f"result-{_beside(cannot, noticed)}", view, made)


def _beside(cannot: Sequence[Obstacle], noticed: Sequence[str]) -> str:
    return "".join(f"{each}-" for each in (*cannot, *noticed))


def reads_like(view: PointView) -> list[dict[str, Any]]:
    """Supply systems the point's readings can be all right on, the likeliest first."""
    return _kept("supplies-", view, lambda: _systems(view))


def loads_of(view: PointView) -> LoadsOut:
    """What the point's circuit draws against its device, and what known loads say of the loop."""
    return _kept("loads-", view, lambda: _loads(view))


def _kept(kind: str, view: PointView, made: Callable[[], T]) -> T:
    """What the core makes of a view, from the cache where this core made it before."""
    key = f"{kind}{fingerprint()}-{view.digest}"
    answer: T | None = cache.get(key)
    if answer is None:
        answer = made()
        cache.set(key, answer)
    return answer


def _loads(view: PointView) -> LoadsOut:
    facts, circuit = view.facts, view.entry.circuit
    drawn = draws(facts, view.readings, circuit.curve if circuit else None)
    return LoadsOut.of(drawn, loops(facts, view.readings), facts.circuit.rating_a, facts.practice)


def _systems(view: PointView) -> list[dict[str, Any]]:
    shares: dict[str, float] = {}
    for guess in what_supply(view.facts, view.readings):
        if guess.fits:
            shares[guess.system.id] = shares.get(guess.system.id, 0.0) + guess.likelihood
    ranked = sorted(shares.items(), key=lambda one: -one[1])
    return [{"system": system, "title": SYSTEMS[system].title, "share": round(share, 3)} for system, share in ranked]


def make_ready(view: PointView) -> None:
    """Beside the answer that opens a point: what its next readings will need, so that they are answered at once."""
    facts = view.facts
    if not facts.no_lines:
        threading.Thread(target=lambda: ensemble_for(facts).prepare(), daemon=True).start()


def capabilities_of(view: PointView, tester: Instrument) -> CapabilitiesOut:
    """What a tester can strike out at a point as its readings leave it, and what not."""
    return CapabilitiesOut.of(capabilities_here(view.facts, view.readings, tester), tester.kind, view.facts.practice)
