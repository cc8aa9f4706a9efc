"""What to ask before anything is called off: every supply that may reach the place.

People die from the feed nobody asked about, so each is asked by name, and a yes adds a source.
"""

from dataclasses import dataclass

from evenprobe.isolation.log import SourceKind


@dataclass(frozen=True)
class Question:
    """`isolate`: what off and locked mean for such a source."""

    kind: SourceKind
    asks: str
    isolate: str


QUESTIONS: tuple[Question, ...] = (
    Question(SourceKind.SECOND_FEED, "A second feed, from another device or board?", "switch off, lock, tag"),
    Question(SourceKind.CONTROL, "Controls fed from elsewhere: contactor, thermostat, bell, alarm?", "off at its feed"),
    Question(
        SourceKind.SHARED_NEUTRAL, "A neutral shared with or borrowed from another circuit?", "that circuit off too"
    ),
    Question(SourceKind.SOLAR, "Solar panels?", "AC and DC isolators off, locked"),
    Question(SourceKind.BATTERY_INVERTER, "A battery inverter or a stand-by supply?", "output and battery off, locked"),
    Question(SourceKind.GENERATOR, "A generator or a change-over switch?", "start blocked, switch locked"),
    Question(SourceKind.CAPACITOR, "Capacitors or drives that hold a charge?", "wait the maker's time, discharge"),
)
