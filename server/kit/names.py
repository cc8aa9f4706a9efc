"""What a file calls a tester that changed while it was in use."""


def named(tester: str, state: int) -> str:
    """The tester's id, with a number from the second state it was used in."""
    return tester if state == 0 else f"{tester}/{state + 1}"
