"""The demo crew's proofs of isolation: one running out, one void, one complete, two that show something."""

from dataclasses import dataclass


@dataclass(frozen=True)
class DemoProof:
    """`on`: site, supply, board, circuit. `events`: minutes from the start, tester, and what happened in words."""

    name: str
    what: str
    on: tuple[str, str, str, str]
    terminals: tuple[str, ...]
    sources: tuple[tuple[str, str, str], ...]
    minutes_ago: float
    events: tuple[tuple[float, str, str], ...]


LOOM_PAIRS = (
    ("L1", "L2"), ("L1", "L3"), ("L1", "N"), ("L1", "PE"), ("L2", "L3"),
    ("L2", "N"), ("L2", "PE"), ("L3", "N"), ("L3", "PE"), ("N", "PE"),
)  # fmt: skip
_DOME_PAIRS = (("L1", "L2"), ("L1", "N"), ("L1", "PE"), ("L2", "N"), ("L2", "PE"), ("N", "PE"))
_ROOM_PAIRS = (("L", "N"), ("L", "PE"), ("N", "PE"))


def _whole_round(tester: str, pairs: tuple[tuple[str, str], ...], start: float) -> tuple[tuple[float, str, str], ...]:
    """Prove, every pair, prove: (minute, tester, event as `load_demo` reads it)."""
    tests = tuple((start + 0.8 + 0.35 * i, tester, f"tested {a} {b}") for i, (a, b) in enumerate(pairs))
    return ((start, tester, "proved"), *tests, (start + 1.6 + 0.35 * len(pairs), tester, "proved"))


PROOFS = (
    DemoProof(
        "Dome drive",
        "machine",
        ("Larkspur Hill Observatory", "Split-phase service", "Warm room board W", "Dome drive"),
        ("L1", "L2", "N", "PE"),
        (
            ("s1", "Board W, 30 A two-pole", "device"),
            ("s2", "Dome control feed, kitchenette circuit", "control"),
        ),
        minutes_ago=34.0,
        events=(
            (0.0, "", "off s1"),
            (0.6, "", "locked s1 K-07"),
            (1.4, "", "off s2"),
            (2.0, "", "locked s2 K-11"),
            (2.6, "d1", "screened"),
            *_whole_round("m2", _DOME_PAIRS, 3.4),
            (9.0, "", "stated"),
            (10.0, "", "left"),
        ),
    ),
    DemoProof(
        "Kitchenette counter",
        "circuit",
        ("Larkspur Hill Observatory", "Split-phase service", "Warm room board W", "Visitor kitchenette"),
        ("L", "N", "PE"),
        (("s1", "Board W, 20 A kitchenette", "device"),),
        minutes_ago=95.0,
        events=(
            (0.0, "", "off s1"),
            (0.5, "", "locked s1 K-03"),
            *_whole_round("m2", _ROOM_PAIRS, 1.2),
            (5.0, "", "stated"),
            (24.0, "", "unlocked s1"),
        ),
    ),
    DemoProof(
        "Loom motor",
        "machine",
        ("Fennwick Weaving Shed", "Mains", "Mill board", "Loom hall sockets"),
        ("L1", "L2", "L3", "N", "PE"),
        (("s1", "Mill board, loom isolator", "device"),),
        minutes_ago=14.0,
        events=(
            (0.0, "", "off s1"),
            (0.7, "", "locked s1 F-02"),
            *_whole_round("t1", LOOM_PAIRS, 2.0),
            (9.0, "", "stated"),
        ),
    ),
    DemoProof(
        "Pier pad outlets",
        "circuit",
        ("Larkspur Hill Observatory", "Split-phase service", "Warm room board W", "Pier pad outlets"),
        ("L", "N", "PE"),
        (("s1", "Board W, 20 A pier pad", "device"),),
        minutes_ago=4.0,
        events=(
            (0.0, "", "off s1"),
            (0.6, "", "locked s1 K-05"),
            (1.2, "m2", "proved"),
            (2.0, "m2", "tested L N 14.2"),
        ),
    ),
    DemoProof(
        "Workshop outlets",
        "circuit",
        ("Larkspur Hill Observatory", "Split-phase service", "Warm room board W", "Workshop outlets"),
        ("L", "N", "PE"),
        (("s1", "Board W, 20 A workshop", "device"),),
        minutes_ago=6.0,
        events=(
            (0.0, "", "off s1"),
            (0.6, "", "locked s1 K-09"),
            (1.2, "m2", "proved"),
            (2.0, "m2", "tested L N 118.4"),
        ),
    ),
)
