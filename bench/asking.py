"""Every operation of the server's document asked by machine: with what it allows and what it does not, on real ids.

What the document allows and forbids is made by schemathesis; ids of what is on record are put among those it made up,
or nothing would ever be found to work on.
"""

import random
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

import requests
import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode

REAL_SHARE = 0.8
"""Of ids and of closed words that are asked for: real ones."""
WORDS: Mapping[str, Sequence[str]] = {
    "what": ("site", "supply", "board", "circuit", "point", "visit"),
    "on": ("site", "circuit", "point", "tester", "reading", "proof", "hunt", "round", "check"),
    "practice": ("north-america", "british", "continental"),
    "system": ("120", "120/240", "230", "230/400", "208Y/120"),
    "earthing": ("TN-S", "TN-C-S", "TT", "unknown"),
}
"""Words that the document calls text, for they depend on what else is said."""
_HOST = "http://localhost"
_FAILED = 500
_ALSO = {"of": None, "place": None, "kit": "tester", "from": None, "event": "proof_event"}
"""Names of an id that are not its table's; none: of any."""

Ids = Mapping[str, Sequence[str]]
"""What is on record, by the name the document gives such an id."""
Send = Callable[[requests.PreparedRequest], tuple[int, str, bytes]]
"""What asks: the status, the kind of content, and the content of the answer."""


@dataclass
class Asked:
    """`failed`: the operation, the status, what was asked and the start of the answer. `statuses`: how often each."""

    requests: int = 0
    statuses: Counter[int] = field(default_factory=Counter)
    failed: list[tuple[str, int, str, str]] = field(default_factory=list)

    def __iadd__(self, other: "Asked") -> "Asked":
        self.requests += other.requests
        self.statuses.update(other.statuses)
        self.failed += other.failed
        return self


def ask_all(document: Mapping[str, Any], ids: Ids, send: Send, times: int, first: int = 0) -> Asked:
    """Each operation `times` times. `first`: another run of the dice."""
    asked = Asked()
    for operation in _operations(document):
        modes = [GenerationMode.POSITIVE]
        if operation.path_parameters or operation.query or operation.body:
            modes.append(GenerationMode.NEGATIVE)
        made = st.one_of(*(operation.as_strategy(generation_mode=mode) for mode in modes))

        @seed(first)
        @settings(
            max_examples=times,
            database=None,
            deadline=None,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )
        @given(made, st.integers(0, 2**32))
        def ask(case: Any, dice: int) -> None:
            _ask(case, random.Random(dice), ids, send, asked)

        ask()
    return asked


def _operations(document: Mapping[str, Any]) -> Iterator[Any]:
    schema = schemathesis.openapi.from_dict(dict(document))
    for result in schema.get_all_operations():
        operation: Any = result
        yield operation.ok()


def _ask(case: Any, rng: random.Random, ids: Ids, send: Send, asked: Asked) -> None:
    for name in list(case.path_parameters or {}):
        case.path_parameters[name] = _real(name, case.path_parameters[name], rng, ids)
    case.body = _filled(case.body, rng, ids)
    request = requests.Request(**case.as_transport_kwargs(base_url=_HOST)).prepare()
    status, kind, content = send(request)
    asked.requests += 1
    asked.statuses[status] += 1
    if status >= _FAILED or (status >= 400 and b"problems" not in content and "json" in kind):
        told = f"{request.method} {request.path_url} {request.body!r}"[:2000]
        asked.failed.append((case.operation.label, status, told, content[:300].decode("utf-8", "replace")))


def _filled(value: Any, rng: random.Random, ids: Ids) -> Any:
    match value:
        case dict():
            return {k: _real(k, _filled(v, rng, ids), rng, ids) if isinstance(v, str) else _filled(v, rng, ids)
                    for k, v in value.items()}  # fmt: skip
        case list():
            return [_filled(one, rng, ids) for one in value]
        case _:
            return value


def _real(name: str, made: Any, rng: random.Random, ids: Ids) -> Any:
    """What stands under such a name: mostly something real where it is an id or a word that is known."""
    if rng.random() > REAL_SHARE:
        return made
    if name in WORDS:
        return rng.choice(WORDS[name])
    called = name.removesuffix("_id")
    if not _is_id(made) and called not in ids:
        return made
    known = ids.get(_ALSO.get(called, called) or "") or [one for every in ids.values() for one in every]
    return rng.choice(known)


def _is_id(made: Any) -> bool:
    try:
        return bool(UUID(made))
    except (ValueError, TypeError, AttributeError):
        return False
