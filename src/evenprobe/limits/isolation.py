"""Figures of a proof of isolation and of the kit used for it: house rules, and the standards they rest on."""

DEAD_VOLTS = 1.0
"""`dead.limit`: instruments show a few tenths of nothing. NFPA 70E article 120; EN 50110-1."""
DEAD_STEP_VOLTS = 50.0
"""The lowest lamp step of a tester whose darkness may mean dead (IEC 61243-3)."""
PROOF_WINDOW_MIN = 10.0
"""`proof.window`: between a proof of the tester and the readings it covers, both sides. House rule, settable."""
UNATTENDED_MIN = 30.0
"""`proof.unattended`: after this long with nobody there a proof of isolation is void. House rule, settable."""
WARN_BEFORE_END_MIN = 5.0
"""How long before a proof of isolation runs out whoever works under it is warned. House rule."""
HOUSE_CATEGORY, HOUSE_VOLTS = "III", 600.0
"""A good house rule: nothing under this on building wiring."""
