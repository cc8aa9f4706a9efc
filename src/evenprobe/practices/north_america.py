"""North America: NEC (NFPA 70), NFPA 70E, ANSI C84.1."""

from evenprobe.practices.lengths import FOOT
from evenprobe.practices.practice import (
    PRACTICES,
    Face,
    FaceContact,
    Practice,
    Shares,
    Sourced,
    at_both_ends,
    letters,
)

NORTH_AMERICA = PRACTICES.add(
    Practice(
        id="north-america",
        rank=1,
        name="North America",
        language="en-US",
        paper="us-letter",
        words={
            "L": "hot",
            "N": "neutral",
            "PE": "ground",
            "CASE": "metal enclosure",
            "REF": "independent ground",
            "outlet": "receptacle",
            "board": "panel",
            "earth": "ground",
            "line": "hot",
            "protective device": "breaker",
            "protective conductor": "ground wire",
            "residual-current device": "GFCI",
        },
        letters=letters("H", "G"),
        # NEC 200.6, 250.119.
        conductor_colours=at_both_ends(
            {
                "L": "black",
                "L1": "black",
                "L2": "red",
                "L3": "blue",
                "N": "white",
                "PE": "green",
                "CASE": "bare",
                "REF": "bare",
            }
        ),
        outlets={
            "L N PE": Face(
                "plate",
                {
                    "L": FaceContact(92, 108, "slot"),
                    "N": FaceContact(208, 108, "tall-slot"),
                    "PE": FaceContact(150, 240, "arch"),
                },
            ),
            "L1 L2 N PE": Face(
                "plate",
                {
                    "PE": FaceContact(150, 66, "arch"),
                    "L1": FaceContact(98, 160, "tall-slot"),
                    "L2": FaceContact(202, 160, "tall-slot"),
                    "N": FaceContact(150, 262, "tall-slot"),
                },
            ),
            "L1 L2 PE": Face(
                "plate",
                {
                    "L1": FaceContact(84, 110, "bar", letter_below=True),
                    "L2": FaceContact(216, 110, "bar", letter_below=True),
                    "PE": FaceContact(150, 240, "arch"),
                },
            ),
        },
        round_outlet_has="bars",
        polarised_plugs=True,
        supplies=("120", "120/240", "208Y/120", "240-high-leg", "480Y/277", "standalone-120", "standalone-230"),
        usual_rating_a=20.0,
        final_ohm_per_m=(0.00206, 0.00829),
        earth_size_ratio=(0.97, 1.7),
        conductor_unit="AWG",
        length_unit=FOOT,
        dead_kinds=("two-pole", "multimeter", "clamp"),
        voltage=Shares(0.90, 1.05),
        tolerable_voltage=Shares(104 / 120, 127 / 120),
        voltage_source="ANSI C84.1 utilization voltage, ranges A and B",
        drop=Sourced(0.03, "NEC 210.19 informational note"),
        leg_match_percent=3.0,
        continuous_load=Sourced(0.8, "NEC 210.20"),
    )
)
