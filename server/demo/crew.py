"""The demo scenario's crew, and ids that are the same on every load."""

from datetime import date
from typing import Any
from uuid import UUID, uuid5

from crews.models import Role

CREW = UUID("6f9d2c1e-5a40-4c7e-9d1b-0e7a5c2b8f10")
USERNAME, PASSWORD, FULL_NAME = "demo", "larkspur-demo", "Demo electrician"


def demo_id(*names: str) -> UUID:
    return uuid5(CREW, "/".join(names))


PEOPLE: tuple[tuple[str, str, dict[str, Any]], ...] = (
    (USERNAME, FULL_NAME, {"role": Role.KEEPER}),
    ("apprentice", "Demo apprentice", {"role": Role.APPRENTICE}),
    (
        "guest",
        "Demo guest",
        {"role": Role.GUEST, "site": demo_id("Larkspur Hill Observatory"), "until": date(2099, 12, 31)},
    ),
)
"""By what name each signs in, all with the same password; and what they are."""
