"""Quick checks of parts: what to set on the meter, what to expect, before anything is measured. Data."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from evenprobe.deadtests.ranges import MANUAL_RANGES, over_range_means, range_for
from evenprobe.limits.components import BATTERIES, FILAMENT_COLD_SHARE

Figures = Mapping[str, float]


@dataclass(frozen=True)
class Setting:
    """`function`, `jack` and `scale` are what to set; `unit` names a row of MANUAL_RANGES."""

    function: str
    jack: str
    unit: str


_VOLTS_AND_OHMS = "the V Ω jack, black in common"
OHMS = Setting("Ω", _VOLTS_AND_OHMS, "ohm")
_DC_VOLTS = Setting("V DC", _VOLTS_AND_OHMS, "V DC")
_AC_VOLTS = Setting("V AC", _VOLTS_AND_OHMS, "V AC")
_DEGREES = Setting("°C", "the sensor's own socket, or whatever display it feeds", "°C")
_FARADS = Setting("capacitance", _VOLTS_AND_OHMS, "µF")


@dataclass(frozen=True)
class QuickCheck:
    """`kind`: of the test it makes. `expected`: from the figures on the part, in the setting's unit."""

    id: str
    title: str
    kind: str
    setting: Setting
    first: str
    expect: str
    needs: tuple[str, ...] = ()
    expected: Callable[[Figures], float] | None = None
    presets: Mapping[str, str] | None = None
    leaves_out: tuple[str, ...] = ()
    """Fields of the kind's form that it does not ask for."""

    def value(self, figures: Figures) -> float | None:
        """What the meter should about show; None until the part's figures are known."""
        if self.expected is None or any(figures.get(name, 0) <= 0 for name in self.needs):
            return None
        return self.expected(figures)


@dataclass(frozen=True)
class Advice:
    range_top: float
    over_range: str
    expected: float | None


def advise(check: QuickCheck, figures: Figures) -> Advice:
    """The range to set on a manual meter for this part."""
    scales = MANUAL_RANGES[check.setting.unit]
    expected = check.value(figures)
    top = range_for(expected, scales)
    return Advice(top, over_range_means(top, check.setting.unit, scales[-1]), expected)


def _nothing(_: Figures) -> float:
    """Closed contacts read as good as nothing, so the smallest range."""
    return 0.1


QUICK_CHECKS: dict[str, QuickCheck] = {
    check.id: check
    for check in (
        QuickCheck(
            "fuse", "Fuse", "closed-contact", OHMS, "Take it out of its holder: anything in parallel reads low too.",
            "0.1 Ω or less. Over-range: blown.", expected=_nothing, presets={"what": "fuse"},
            leaves_out=("open_over_range", "latches"),
        ),
        QuickCheck(
            "switch", "Switch", "closed-contact", OHMS, "Dead, and one side disconnected.",
            "Over-range when off; 0.1 Ω or less when on.", expected=_nothing, presets={"what": "switch"},
            leaves_out=("latches",),
        ),
        QuickCheck(
            "breaker", "Breaker", "closed-contact", OHMS, "Dead on both sides, outgoing conductor off.",
            "Over-range when off; 0.1 Ω or less when on; it latches.", expected=_nothing, presets={"what": "breaker"},
            leaves_out=("latches",),
        ),
        QuickCheck(
            "capacitor", "Capacitor", "capacitor", _FARADS,
            "Discharge it through a resistor, never with a screwdriver; then disconnect it.",
            "What is printed, within its tolerance; else within 6 %.", ("printed_uf",), lambda f: f["printed_uf"],
        ),
        QuickCheck(
            "lead-acid", "Battery, 12 V lead-acid", "battery", _DC_VOLTS, "At rest for an hour, no load, no charger.",
            "12.6 V or more charged; below 12.0 V flat. A minus sign: leads the other way round.",
            expected=lambda _: BATTERIES["lead-acid-12"][0].volts, presets={"chemistry": "lead-acid-12"},
        ),
        QuickCheck(
            "alkaline", "Battery, 1.5 V alkaline", "battery", _DC_VOLTS, "Out of the device.",
            "1.5 V or more fresh; below 1.2 V replace. A minus sign: leads the other way round.",
            expected=lambda _: BATTERIES["alkaline-1.5"][0].volts, presets={"chemistry": "alkaline-1.5"},
        ),
        QuickCheck(
            "panels", "String of panels", "panel-string", _DC_VOLTS,
            "In daylight, nothing connected, one string at a time. Never pull a plug under load: it draws an arc.",
            "What is printed for one, times how many; cold gives more, heat less. The sign decides.",
            ("panels", "panel_v"), lambda f: f["panels"] * f["panel_v"],
        ),
        QuickCheck(
            "sensor", "Temperature sensor", "temperature-sensor", _DEGREES,
            "Beside a thermometer, at two temperatures well apart; wait until both are steady.",
            "Within 1 °C of the thermometer, or the maker's figure.",
        ),
        QuickCheck(
            "coil", "Coil", "coil", _AC_VOLTS, "Live: energised. Probes on the coil's own terminals.",
            "85 % of its rated voltage or more.", ("rated_v",), lambda f: f["rated_v"],
        ),
        QuickCheck(
            "element", "Heating element", "element", OHMS, "Dead, cold, both ends disconnected.",
            "V²/P, a little less when cold. Over-range: broken.", ("rated_v", "rated_w"),
            lambda f: f["rated_v"] ** 2 / f["rated_w"], {"what": "element"},
        ),
        QuickCheck(
            "filament", "Filament lamp", "element", OHMS, "Out of its holder, cold.",
            "About a tenth of V²/P: cold it reads far less than when it glows.", ("rated_v", "rated_w"),
            lambda f: FILAMENT_COLD_SHARE * f["rated_v"] ** 2 / f["rated_w"], {"what": "filament"},
        ),
    )
}  # fmt: skip
