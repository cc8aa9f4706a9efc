"""Continental Europe: IEC 60364 and the EN standards, plugs that fit both ways."""

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

CONTINENTAL = PRACTICES.add(
    Practice(
        id="continental",
        rank=2,
        name="Continental",
        language="en-GB",
        words={
            "L": "line",
            "N": "neutral",
            "PE": "protective conductor",
            "CASE": "exposed metalwork",
            "REF": "independent earth",
            "outlet": "socket",
            "board": "distribution board",
            "earth": "earth",
            "line": "line",
            "protective device": "circuit-breaker",
            "protective conductor": "protective conductor",
            "residual-current device": "RCD",
        },
        letters=letters("L", "E"),
        conductor_colours=at_both_ends(EUROPEAN_COLOURS),
        outlets={
            "L N PE": Face(
                "disc",
                {
                    "L": FaceContact(84, 165, "round"),
                    "N": FaceContact(216, 165, "round"),
                    "PE": FaceContact(150, 284, "bar"),
                },
            ),
        },
        round_outlet_has="pins",
        polarised_plugs=False,
        supplies=("230", "230/400", "standalone-120", "standalone-230"),
        usual_rating_a=16.0,
        final_ohm_per_m=(0.0030, 0.01215),
        earth_size_ratio=(0.97, 1.7),
        conductor_unit="mm2",
        length_unit=METRE,
        dead_kinds=("two-pole",),
        voltage=Shares(0.90, 1.10),
        voltage_source="IEC 60038; EN 50160",
        drop=Sourced(0.04, "IEC 60364-5-52 annex G"),
        leg_match_percent=2.0,
    )
)
