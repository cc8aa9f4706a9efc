"""What a hunt goes along, as a circuit file has it, from the circuit or the board on record."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from evenprobe.hunting.chains import FEED
from evenprobe.hunting.intake import HUNTED, Along
from evenprobe.hunting.run import BOARD
from hunts.models import Hunt
from sites.models import Board, Circuit

_UNKNOWN_LENGTH_M = 8.0
"""Of a stretch that nobody measured."""


@dataclass(frozen=True)
class Laid:
    """`content`: of the circuit file; `names`: of what is in it, by id, where the id is not a name itself."""

    content: dict[str, Any]
    names: dict[str, str] = field(default_factory=dict)


def laid_out(kind: str, board: Board, circuit: Circuit | None, asked: dict[str, Any]) -> Laid:
    """What a hunt of that kind goes along. A circuit is needed but to map a board."""
    along = HUNTED[kind].along
    if along == "board":
        return _board(board, asked)
    if circuit is None:
        raise ValueError(f"{kind} is hunted on a circuit")
    return _ON_A_CIRCUIT[along](circuit, kind, asked)


def places_of(hunt: Hunt) -> set[str]:
    """Where probes may be on it: at the board, the feed, a box or a joint, by what the circuit file calls them."""
    laid = [each["id"] for key in ("points", "elements") for each in hunt.layout.get(key, [])]
    return {BOARD, FEED, *laid}


def _run(circuit: Circuit, kind: str, asked: dict[str, Any]) -> Laid:
    """Its points in cable order, each after the one before."""
    points, before, at_m = [], BOARD, 0.0
    in_use = list(circuit.points.filter(retired_at=None))
    for point in in_use:
        length = _UNKNOWN_LENGTH_M if point.length_m is None else max(0.0, point.length_m - at_m)
        points.append({"id": str(point.id), "after": before, "length_m": round(length, 2)})
        before, at_m = str(point.id), at_m + length
    conductor = {"conductor": circuit.conductor} if circuit.conductor else {}
    between = list(asked.get("between") or HUNTED[kind].between or ("L", "PE"))
    return Laid({"points": points, "between": between, **conductor}, {str(point.id): point.name for point in in_use})


def _chain(_circuit: Circuit, _kind: str, asked: dict[str, Any]) -> Laid:
    chain = asked.get("chain") or {}
    return Laid({"supply_v": chain.get("supply_v"), "elements": chain.get("elements", [])})


def _guide(circuit: Circuit, _kind: str, _asked: dict[str, Any]) -> Laid:
    points = list(circuit.points.filter(retired_at=None))
    rated = {"rated_a": circuit.rating_a, "residual_ma": circuit.residual_ma, "curve": circuit.curve}
    return Laid(
        {
            "points": [{"id": str(point.id)} for point in points],
            **{key: value for key, value in rated.items() if value},
        },
        {str(point.id): point.name for point in points},
    )


def _board(board: Board, asked: dict[str, Any]) -> Laid:
    """Its circuits on record are ways, and their points outlets; then those that were told, by their names."""
    circuits = list(board.circuits.filter(retired_at=None).prefetch_related("points"))
    points = [point for circuit in circuits for point in circuit.points.all() if point.retired_at is None]
    stay = {key: asked[key] for key in ("fixed_on", "fixed_off") if asked.get(key)}
    return Laid(
        {
            "ways": [*(str(circuit.id) for circuit in circuits), *asked.get("ways", [])],
            "outlets": [*(str(point.id) for point in points), *asked.get("outlets", [])],
            **stay,
        },
        {str(c.id): c.name for c in circuits} | {str(p.id): p.name for p in points},
    )


_ON_A_CIRCUIT: dict[Along, Callable[[Circuit, str, dict[str, Any]], Laid]] = {
    "run": _run,
    "chain": _chain,
    "guide": _guide,
}
