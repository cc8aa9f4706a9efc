"""Every voltage limit with its id, value, unit, condition and source. Data: a crew may override one with a reason.

The local code and the maker's instructions come first; a verdict always names the limit and where it comes from.
What differs between practices is in `practices`.
"""

from collections.abc import Sequence
from dataclasses import replace

from evenprobe.limits.limit import Band, Limit, Override
from evenprobe.practices import Practice
from evenprobe.practices.practice import Shares
from evenprobe.supplies import SupplySystem

WET_TOUCH_VOLTS = 25.0
DRY_TOUCH_VOLTS = 50.0
DRY_TOUCH_DC_VOLTS = 120.0
"""`touch.limit`, direct. IEC 60364-4-41; IEC TS 60479-1."""
_GRID_FREQUENCY = 0.5
_STANDALONE_FREQUENCY = 3.0


def _of_nominal(shares: Shares, nominal: float) -> Band:
    return Band(round(shares.low * nominal, 1), round(shares.high * nominal, 1))


def _limits(practice: Practice, system: SupplySystem) -> Sequence[Limit]:
    nominal = system.nominal_volts
    tolerable = practice.tolerable_voltage
    spread = _STANDALONE_FREQUENCY if system.standalone else _GRID_FREQUENCY
    return (
        Limit(
            "voltage.band",
            "V",
            _of_nominal(practice.voltage, nominal),
            practice.voltage_source,
            None if tolerable is None else _of_nominal(tolerable, nominal),
            "line to neutral at the point of use",
        ),
        Limit(
            "voltage.drop",
            "V",
            Band(0, round(practice.drop.share * nominal, 1)),
            practice.drop.source,
            condition="line to neutral, loaded against unloaded",
        ),
        Limit(
            "frequency.band",
            "Hz",
            Band(system.frequency_hz - spread, system.frequency_hz + spread),
            "ISO 8528-5 G2, as a guide" if system.standalone else "EN 50160, as a guide",
        ),
        Limit(
            "leg.match",
            "%",
            Band(0, practice.leg_match_percent),
            "NEMA MG-1 unbalance, as a guide",
            condition="two lines to neutral, of their mean",
        ),
        Limit(
            "n-pe.unloaded",
            "V",
            Band(0, 2),
            "field guidance; compare with the drop along the neutral",
            Band(0, 5),
            "no known load on the circuit",
        ),
        Limit(
            "touch.limit",
            "V",
            Band(0, DRY_TOUCH_VOLTS),
            "IEC 60364-4-41; IEC TS 60479-1",
            condition="metalwork to an independent earth, dry; 25 V where wet",
        ),
        Limit(
            "touch.limit.dc",
            "V",
            Band(0, DRY_TOUCH_DC_VOLTS),
            "IEC 60364-4-41; IEC TS 60479-1",
            condition="metalwork to an independent earth, direct voltage, dry; 60 V where wet",
        ),
    )


def limit_for(limit: str, practice: Practice, system: SupplySystem, overrides: Sequence[Override] = ()) -> Limit:
    """The limit in force on a supply in a practice.

    Parameters
    ----------
    limit : str
        Its id, as `voltage.band`.
    practice : Practice
        Whose figures hold.
    system : SupplySystem
        What the limit is a share of.
    overrides : sequence of Override
        A crew's own values, with the reasons for them.

    Returns
    -------
    Limit
        With its unit and source.

    Raises
    ------
    KeyError
        Where there is no limit of that id.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS
    >>> limit_for("voltage.band", BRITISH, SYSTEMS["230"]).band
    Band(low=216.2, high=253.0)
    """
    found = {one.id: one for one in _limits(practice, system)}[limit]
    for override in overrides:
        if override.limit == limit:
            found = replace(
                found,
                band=Band(override.low, override.high),
                tolerable=None,
                source=f"this crew's own: {override.reason} (usual: {found.source})",
            )
    return found
