"""Names as people write them in spreadsheets: capitals and spaces make no other."""


def plain(name: object) -> str:
    """By which two are the same."""
    return " ".join(str(name).casefold().split())
