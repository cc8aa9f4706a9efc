"""Britain: BS 7671, BS 1363 outlets, socket circuits as rings."""

from evenprobe.practices.lengths import METRE
from evenprobe.practices.practice import (
    EUROPEAN_COLOURS,
    PRACTICES,
    Face,
    FaceContact,
    Practice,
    Shares,
    Sourced,
    at_both_ends,
    letters,
)

BRITISH = PRACTICES.add(
    Practice(
        id="british",
        rank=3,
        name="British",
        language="en-GB",
        words={
            "L": "line",
            "N": "neutral",
            "PE": "earth",
            "CASE": "exposed metalwork",
            "REF": "independent earth",
            "outlet": "socket",
            "board": "consumer unit",
            "earth": "earth",
            "line": "line",
            "protective device": "MCB",
            "protective conductor": "protective conductor",
            "residual-current device": "RCD",
        },
        letters=letters("L", "E"),
        conductor_colours=at_both_ends(EUROPEAN_COLOURS),
        outlets={
            "L N PE": Face(
                "plate",
                {
                    "PE": FaceContact(150, 86, "tall-slot"),
                    "N": FaceContact(84, 232, "bar"),
                    "L": FaceContact(216, 232, "bar"),
                },
            ),
        },
        round_outlet_has="pins",
        polarised_plugs=True,
        supplies=("230", "230/400", "standalone-120", "standalone-230"),
        usual_rating_a=32.0,
        final_ohm_per_m=(0.0018, 0.01215),
        earth_size_ratio=(0.97, 2.7),
        conductor_unit="mm2",
        length_unit=METRE,
        dead_kinds=("two-pole",),
        voltage=Shares(0.94, 1.10),
        tolerable_voltage=Shares(0.90, 1.10),
        voltage_source="IEC 60038; EN 50160; BS 7671 appendix 1",
        drop=Sourced(0.05, "BS 7671 appendix 4"),
        leg_match_percent=2.0,
        ring_circuits=True,
    )
)
