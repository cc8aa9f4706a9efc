"""The variants of a condition at a point: which line it is about, and which wire is then where.

With one line there is mostly one variant. With several an open line is any of them, and a sample of the condition
is one of its variants. Small functions, named in the catalogue; each gives the variants of one kind of change.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import permutations

from evenprobe.wiring.points import Layout
from evenprobe.wiring.topology import pairs_of
from evenprobe.wiring.unknowns import Range

OPEN = Range(0.0, 0.0)
"""A joint that does not conduct: 1 GΩ beside a few picofarads."""
ALIKE = 0.01
"""Share of nominal within which two lines are of one voltage."""
HIGH_LEG = 3**0.5 * 1j
"""Of a delta with a tapped winding, per volt of a line at the winding's end."""
HEALTHY = ("line", "neutral", "earth")
"""The wires behind the L, N and PE contact as they should be."""


@dataclass(frozen=True)
class Change:
    """What a condition changes of the healthy wiring, on the line it is about.

    Parameters
    ----------
    contacts
        The wire behind the L, N and PE contact.
    joints
        Resistance of poor or open joints, by wire.
    leaks
        Whether something leaks from the line to metalwork.
    """

    contacts: tuple[str, str, str] = HEALTHY
    joints: Mapping[str, Range] = field(default_factory=dict)
    leaks: bool = False


@dataclass(frozen=True)
class Variant:
    """`contacts`: the wire behind each contact, lines first, then N where there is one, then PE.

    `joined`: the place of the run, `tap` or `end`, where neutral and earth are joined, empty where nowhere. `foreign`:
    the phasor per volt of an ordinary line of what another circuit's load on this neutral is fed by, None where none.

    `feeds`: of each bar at the board its phasor per volt of an ordinary line, None where nothing feeds it.
    `tied`: two bars that are one. `neutral_emf`: the same of what the neutral's wire is on. `joints` by wire.
    `lines`: contacts it is about, by the names of their wires.
    """

    contacts: tuple[str, ...]
    feeds: tuple[complex | None, ...]
    joints: Mapping[str, Range] = field(default_factory=dict)
    leaking: str = ""
    tied: tuple[str, str] | None = None
    neutral_emf: complex = 0j
    joined: str = ""
    foreign: complex | None = None
    lines: tuple[str, ...] = ()


Variants = Callable[[Change, Layout], Sequence[Variant]]


def _as_it_should_be(layout: Layout) -> Variant:
    return Variant(layout.wires, layout.phasors)


def each_line(change: Change, layout: Layout) -> Sequence[Variant]:
    """Of what is about a line one variant for each; of anything else one."""
    healthy = _as_it_should_be(layout)
    moved = change.contacts != HEALTHY and change.contacts[0] != "line"
    about_a_line = moved or "line" in change.joints or change.leaks
    if not about_a_line:
        return [replace(_of_line(change, layout, healthy, layout.lines[0]), lines=())]
    return [_of_line(change, layout, healthy, line) for line in layout.lines]


def _of_line(change: Change, layout: Layout, healthy: Variant, line: str) -> Variant:
    def of(wire: str) -> str:
        return line if wire == "line" else wire

    behind = dict(zip(layout.wires, layout.wires, strict=True))
    for contact, wire in zip(HEALTHY, change.contacts, strict=True):
        if of(contact) in behind:
            behind[of(contact)] = of(wire)
    return replace(
        healthy,
        contacts=tuple(behind.values()),
        joints={of(wire): joint for wire, joint in change.joints.items()},
        leaking=line if change.leaks else "",
        lines=(line,) if len(layout.lines) > 1 else (),
    )


def a_line_as_neutral(_: Change, layout: Layout) -> Sequence[Variant]:
    """The neutral's wire on any other line than the one that is here, or where several are, on any."""
    return [replace(_as_it_should_be(layout), neutral_emf=phasor) for phasor in layout.astray]


def neutral_and_earth_joined(_: Change, layout: Layout) -> Sequence[Variant]:
    """At another box of the circuit, or at one beyond this point."""
    return [replace(_as_it_should_be(layout), joined=place) for place in ("tap", "end")]


def of_any_line(_: Change, layout: Layout) -> Sequence[Variant]:
    """The neutral carries what another circuit of any line draws too."""
    return [replace(_as_it_should_be(layout), foreign=phasor) for phasor in dict.fromkeys((1 + 0j, *layout.astray))]


def of_another_line(_: Change, layout: Layout) -> Sequence[Variant]:
    """The neutral carries what another line's circuit draws too."""
    return [replace(_as_it_should_be(layout), foreign=phasor) for phasor in layout.astray]


def one_line_lost(change: Change, layout: Layout) -> Sequence[Variant]:
    """One of the lines that come here has no source: its bar lives on what the loads feed back."""
    healthy = _as_it_should_be(layout)
    return [
        replace(healthy, feeds=_without(layout, line), joints=change.joints, lines=(line,)) for line in layout.lines
    ]


def two_on_one_leg(change: Change, layout: Layout) -> Sequence[Variant]:
    """Two of the lines that come here are on one bar."""
    healthy = _as_it_should_be(layout)
    return [
        replace(healthy, feeds=_without(layout, other), joints=change.joints, tied=(one, other), lines=(one, other))
        for one, other in permutations(layout.lines, 2)
    ]


def _without(layout: Layout, unfed: str) -> tuple[complex | None, ...]:
    return tuple(None if bar == unfed else phasor for bar, phasor in zip(layout.bars, layout.phasors, strict=True))


def other_legs(_: Change, layout: Layout) -> Sequence[Variant]:
    """All as it should be, on other legs that are as good."""
    return [replace(_as_it_should_be(layout), feeds=phasors) for phasors in layout.alternatives]


def two_lines_exchanged(_: Change, layout: Layout) -> Sequence[Variant]:
    """Two contacts have each other's wire; a high leg stays where it belongs."""
    healthy = _as_it_should_be(layout)
    variants = []
    for one, other in pairs_of(layout.lines):
        exchanged = {one: other, other: one}
        if abs(_volts(layout, one) - _volts(layout, other)) < ALIKE:
            contacts = tuple(exchanged.get(wire, wire) for wire in layout.wires)
            variants.append(replace(healthy, contacts=contacts))
    return variants


def high_leg_misplaced(_: Change, layout: Layout) -> Sequence[Variant]:
    """An ordinary line's contact on the high leg: of the lines here, or of those at the board.

    A tap that is recorded as a supply of its own may be one of a high-leg delta. Between several lines alone,
    without a neutral, the high leg is like any other.
    """
    if len(layout.lines) > 1 and not layout.neutral:
        return []
    healthy = _as_it_should_be(layout)
    high = [bar for bar in layout.bars if _volts(layout, bar) > 1 + ALIKE]
    if not high and not _one_winding(layout):
        return []
    variants = []
    for line in layout.lines:
        if line in high:
            continue
        feeds = dict(zip(layout.bars, healthy.feeds, strict=True))
        ordinary = feeds[line]
        feeds[line] = feeds[high[0]] if high else HIGH_LEG
        feeds |= dict.fromkeys(high, ordinary)
        about = (line,) if len(layout.lines) > 1 else ()
        variants.append(replace(healthy, feeds=tuple(feeds.values()), lines=about))
    return variants


def _one_winding(layout: Layout) -> bool:
    """Whether all its lines are ends of one tapped winding, as the ordinary ones of a delta are."""
    return all(abs(phasor.imag) < ALIKE for phasor in layout.phasors)


def lost_or_failing(change: Change, layout: Layout) -> Sequence[Variant]:
    """The joint open, or poor on its variant to be."""
    healthy = _as_it_should_be(layout)
    opened = dict.fromkeys(change.joints, OPEN)
    return [replace(healthy, joints=joints) for joints in (opened, change.joints)]


def _volts(layout: Layout, bar: str) -> float:
    return abs(layout.phasors[layout.bars.index(bar)])
