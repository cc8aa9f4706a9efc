"""A chain of hashes: each link holds the one before it, so that none can be changed, left out or put between unseen.

A link holds its content's hash and not the content (a hash list with back links, as in Haber and Stornetta, "How to
time-stamp a digital document", 1991), so that a chain is checked whole where most of what was signed is not shown.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from evenprobe.signing.canonical import digest

_FIRST = 1
"""The number of a chain's first link."""


@dataclass(frozen=True)
class Link:
    """One link. `content_sha256`: of what was signed; `link_sha256`: of that, its number and the link before."""

    number: int
    content_sha256: str
    link_sha256: str


@dataclass(frozen=True)
class Broken:
    """Where a chain does not hold. `at`: place in the list; `why`: a key of the verifier's sentences."""

    at: int
    number: int
    why: str


def link_after(before: Link | None, content_sha256: str) -> Link:
    """The link that follows.

    Parameters
    ----------
    before : Link or None
        The last of the chain; None for its first.
    content_sha256 : str
        Of what is signed.

    Returns
    -------
    Link
        The next.

    Examples
    --------
    >>> first = link_after(None, digest("north panel"))
    >>> link_after(first, digest("south panel")).number
    2
    """
    number = before.number + 1 if before else _FIRST
    return Link(number, content_sha256, _hash(number, content_sha256, before.link_sha256 if before else None))


def broken_links(chain: Sequence[Link]) -> Iterator[Broken]:
    """Where a chain, given from its first link on, does not hold.

    Parameters
    ----------
    chain : sequence of Link
        In the order of their numbers.

    Returns
    -------
    iterator of Broken
        `missing`: links are left out before it, or stand twice or in another order. `altered`: it is not what its
        hash says, or the one before it was changed.

    Examples
    --------
    >>> first = link_after(None, digest("north panel"))
    >>> second = link_after(first, digest("south panel"))
    >>> [broken.why for broken in broken_links([first, second])], [broken.why for broken in broken_links([second])]
    ([], ['missing'])
    """
    before: Link | None = None
    for at, link in enumerate(chain):
        expected = before.number + 1 if before else _FIRST
        if link.number != expected:
            yield Broken(at, link.number, "missing")
        elif link.link_sha256 != _hash(link.number, link.content_sha256, before.link_sha256 if before else None):
            yield Broken(at, link.number, "altered")
        before = link


def _hash(number: int, content_sha256: str, before: str | None) -> str:
    return digest({"number": number, "content_sha256": content_sha256, "before": before})
