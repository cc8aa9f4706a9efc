"""Poor joints below what a poor joint begins at: joints are continuous, and a sound one has up to 0.05 ohm.

While the wiring may be sound such a joint is as good as sound. Where it cannot be, it is what is wrong.
"""

from dataclasses import replace

from evenprobe.conditions.condition import Condition
from evenprobe.conditions.one_line import POOR_EARTH_JOINT, POOR_JOINT
from evenprobe.wiring.unknowns import Range

_SOUND_UP_TO_OHM = 0.05
_SLIGHT = {poor: Range(_SOUND_UP_TO_OHM, poor.low, "log") for poor in (POOR_JOINT, POOR_EARTH_JOINT)}


def with_slight_joint(condition: Condition) -> Condition | None:
    """The same condition with a joint less poor than its own.

    Parameters
    ----------
    condition : Condition
        A row of the catalogue.

    Returns
    -------
    Condition or None
        With its joint from what a sound one has up to where it begins; None where it is not one of a single poor joint.

    Examples
    --------
    >>> from evenprobe.conditions import CONDITIONS
    >>> slight = with_slight_joint(CONDITIONS["high-resistance-line"])
    >>> slight.joints["line"].high == CONDITIONS["high-resistance-line"].joints["line"].low
    True
    """
    if len(condition.joints) != 1:
        return None
    ((wire, joint),) = condition.joints.items()
    return replace(condition, joints={wire: _SLIGHT[joint]}) if joint in _SLIGHT else None
