"""A tester as the record knows it: its kind, whether it was proved, and what it is made like where that is unusual."""

from dataclasses import dataclass

from evenprobe.testers.kinds import MULTIMETER, Ability, Kind


@dataclass(frozen=True)
class Instrument:
    """A tester as the record knows it; None leaves the kind's usual value.

    `proved`: known to work, by a known source before and after. A contact tester that shows a voltage has
    shown that it works, so only a stated `False` sets its readings aside; a detector's silence needs `True`.
    """

    id: str
    kind: Kind
    proved: bool | None = None
    input_ohm: float | None = None
    accuracy_percent: float | None = None
    accuracy_counts: float | None = None
    resolution: float | None = None
    rated_volts: float | None = None
    test_ma: float | None = None
    """What its trip button drives from line to earth."""

    def volts(self) -> Ability | None:
        """Its voltage range with the register's own figures in place, or None when it has none."""
        usual = self.kind.volts
        if usual is None:
            return None
        return Ability(
            _given(self.accuracy_percent, usual.percent),
            _given(self.accuracy_counts, usual.counts),
            _given(self.resolution, usual.resolution),
            _given(self.rated_volts, usual.top),
            _given(self.input_ohm, usual.input_ohm),
            usual.input_farad if self.input_ohm is None else 0.0,
            usual.low_input_ohm,
        )

    def ohms(self) -> Ability | None:
        """Its resistance range; the register's accuracy is that of volts where it has any."""
        usual = self.kind.ohms
        if usual is None:
            return None
        own = self.kind.accuracy_is_of_ohms
        return Ability(
            _given(self.accuracy_percent, usual.percent) if own else usual.percent,
            _given(self.accuracy_counts, usual.counts) if own else usual.counts,
            _given(self.resolution, usual.resolution) if own else usual.resolution,
            usual.top,
        )

    def loop(self) -> Ability | None:
        """What it shows of a loop, or None when it does not; the register's accuracy is that of volts."""
        return self.kind.loop

    def amps(self) -> Ability | None:
        """Its current range, or None when it has none; the register's accuracy is that of volts."""
        return self.kind.amps


def _given(value: float | None, usual: float) -> float:
    return usual if value is None else value


TYPED = Instrument("typed", MULTIMETER, proved=True)
"""What a reading without a named tester is taken as: a proved multimeter's."""
