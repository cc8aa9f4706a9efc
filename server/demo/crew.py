"""The demo scenario's crew, and ids that are the same on every load."""

from uuid import UUID, uuid5

CREW = UUID("6f9d2c1e-5a40-4c7e-9d1b-0e7a5c2b8f10")
USERNAME, PASSWORD, FULL_NAME = "demo", "larkspur-demo", "Demo electrician"


def demo_id(*names: str) -> UUID:
    return uuid5(CREW, "/".join(names))
