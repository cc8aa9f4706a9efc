"""What a row of a file is called in a crew where another crew has its id."""

from uuid import UUID, uuid5

from crews.models import Crew


def own_id(crew: Crew, id_: str) -> UUID:
    """The same every time the file is brought in."""
    return uuid5(crew.id, id_)
