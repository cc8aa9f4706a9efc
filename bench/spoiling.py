"""Files spoilt as hands, editors, bad lines and bad will spoil them: in their text, and in what they say."""

import json
from collections.abc import Callable, Iterator, Sequence
from typing import Any

import numpy as np

Rng = np.random.Generator
MOST_SPOILS = 4
IN_THE_TEXT_SHARE = 0.3
_AS_WRITTEN = "as written: "
"""Before what stands in a file's text so and not as the text it is in JSON."""


def _raw(text: str) -> str:
    return _AS_WRITTEN + text


STRANGE: Sequence[Any] = (
    None, True, False, 0, -1, 1, 0.5, 1e-9, 1e9, 1e29, 1e300, -1e300, 2**63, 10**40, [], {}, [[]], [None], {"": None},
    "", " ", "x" * 10_000, "L", "N", "PE", "L9", "AC", "north-america", "voltage", "OL", "≤", "1e5", "12,5", "\x00",
    "\u202e", "🔌", "../../etc/passwd", "<b>", "1999-12-31T23:59:59+00:00", "2026-11-24T10:40:00+00:00",
    "2026-11-24T10:40:00", "2026-02-30T10:40:00+00:00", "9999-12-31T23:59:59-14:00", "2026-11-24",
    _raw("1" * 5000), _raw("-" + "9" * 5000), _raw("1." + "3" * 5000), _raw("1e999"), _raw("NaN"), _raw("-Infinity"),
    _raw('"\\ud800"'), _raw("[" * 3000 + "]" * 3000), _raw('{"a":' * 400 + "1" + "}" * 400), _raw('{"id": 1, "id": 2}'),
    _raw("0123"), _raw("1_000"), _raw("'one'"), _raw(""),
)  # fmt: skip
"""What may stand where something else belongs."""

Place = tuple[Any, Any]
"""What holds it, and its key there."""


def spoilt(content: bytes, rng: Rng) -> bytes:
    """The file after one to four mishaps, the first ones to what it says and the last ones, in places, to its text."""
    data = json.loads(content)
    times = min(int(rng.geometric(0.5)), MOST_SPOILS)
    in_the_text = int(rng.integers(times + 1)) if rng.random() < IN_THE_TEXT_SHARE else 0
    for _ in range(times - in_the_text):
        places = list(_places(data))
        if not places:
            break
        _IN_WHAT_IT_SAYS[int(rng.integers(len(_IN_WHAT_IT_SAYS)))](places, rng)
    written = _written(data).encode("utf-8", "surrogatepass")
    for _ in range(in_the_text):
        written = _in_bytes(written, rng)
    return written


def _places(data: Any) -> Iterator[Place]:
    waiting = [data]
    while waiting:
        held = waiting.pop()
        inner = held.items() if isinstance(held, dict) else enumerate(held)
        for key, value in list(inner):
            yield held, key
            if isinstance(value, dict | list):
                waiting.append(value)


def _one(places: Sequence[Place], rng: Rng) -> Place:
    return places[int(rng.integers(len(places)))]


def _strange(places: Sequence[Place], rng: Rng) -> None:
    held, key = _one(places, rng)
    held[key] = STRANGE[int(rng.integers(len(STRANGE)))]


def _gone(places: Sequence[Place], rng: Rng) -> None:
    held, key = _one(places, rng)
    del held[key]


def _of_another(places: Sequence[Place], rng: Rng) -> None:
    (held, key), (other, at) = _one(places, rng), _one(places, rng)
    held[key] = json.loads(json.dumps(other[at]))


def _called_otherwise(places: Sequence[Place], rng: Rng) -> None:
    """Under the name of something else in the file."""
    held, key = _one(places, rng)
    _, name = _one(places, rng)
    if isinstance(held, dict):
        held[str(name)] = held.pop(key)


def _once_more(places: Sequence[Place], rng: Rng) -> None:
    held, key = _one(places, rng)
    if isinstance(held, list) and len(held) < 200:
        held.insert(int(rng.integers(len(held) + 1)), json.loads(json.dumps(held[key])))


def _moved(places: Sequence[Place], rng: Rng) -> None:
    """A number by some powers of ten, or by little, or to the other side of nothing."""
    numbers = [(held, key) for held, key in places if type(held[key]) in (int, float)]
    if numbers:
        held, key = _one(numbers, rng)
        held[key] *= float(rng.choice([-1, 0, 1e-6, 1e-3, 0.5, 0.99, 1.01, 2, 1e3, 1e6, 1e12]))


_IN_WHAT_IT_SAYS: Sequence[Callable[[Sequence[Place], Rng], None]] = (
    _strange, _strange, _gone, _of_another, _called_otherwise, _once_more, _moved, _moved, _moved, _moved,
)  # fmt: skip


def _written(data: Any) -> str:
    text = json.dumps(data, ensure_ascii=False)
    if _AS_WRITTEN not in text:
        return text
    for value in STRANGE:
        if isinstance(value, str) and value.startswith(_AS_WRITTEN):
            text = text.replace(json.dumps(value, ensure_ascii=False), value.removeprefix(_AS_WRITTEN))
    return text


def _in_bytes(content: bytes, rng: Rng) -> bytes:
    if not content:
        return content
    at, to = sorted(int(i) for i in rng.integers(len(content) + 1, size=2))
    match int(rng.integers(5)):
        case 0:
            return content[:at]
        case 1:
            return content[:at] + content[to:]
        case 2:
            return content[:at] + bytes([int(rng.integers(256))]) + content[at + 1 :]
        case 3:
            return content[:at] + content[at : at + 200] + content[at:]
        case _:
            return content[:at] + rng.bytes(8) + content[at:]
