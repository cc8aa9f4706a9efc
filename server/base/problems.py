"""What the API says when something cannot be done: one shape, with the path of what is wrong."""

from collections.abc import Sequence

from ninja import Schema


class Problem(Schema):
    """`path`: the key or file path that is wrong, empty where it is the whole."""

    path: str
    text: str


class Problems(Schema):
    problems: list[Problem]


class Refused(Exception):
    """A request that cannot be carried out. Nothing was written."""

    def __init__(self, *problems: tuple[str, str], status: int = 422) -> None:
        super().__init__("; ".join(text for _, text in problems))
        self.problems = problems
        self.status = status


class NotFoundHere(Refused):
    """Not there, or another crew's: which of the two is nobody's business."""

    def __init__(self, what: str) -> None:
        super().__init__(("", f"no such {what} in your crew"), status=404)


def as_body(problems: Sequence[tuple[str, str]]) -> dict[str, list[dict[str, str]]]:
    return {"problems": [{"path": path, "text": text} for path, text in problems]}
