"""People: who is in a crew and as what, and how somebody comes in."""
