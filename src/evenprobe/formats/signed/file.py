"""One sign-off as a file: its content, and the crew's chain up to it, the others' contents left out."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from evenprobe.entries import Strict
from evenprobe.formats.signed.content import SignedContent
from evenprobe.signing import Link

Sha256 = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]


class LinkEntry(Strict):
    """A link of the chain: `link_sha256` is of number, content hash and the link before."""

    number: Annotated[int, Field(ge=1)]
    content_sha256: Sha256
    link_sha256: Sha256

    @classmethod
    def of(cls, link: Link) -> "LinkEntry":
        return cls(number=link.number, content_sha256=link.content_sha256, link_sha256=link.link_sha256)

    def link(self) -> Link:
        return Link(self.number, self.content_sha256, self.link_sha256)


class SignOffFile(Strict):
    """The whole file. The chain's last link is this sign-off's own."""

    format: Literal["even-probe/sign-off"]
    version: Literal[1]
    chain: Annotated[list[LinkEntry], Field(min_length=1)]
    content: SignedContent

    def links(self) -> Sequence[Link]:
        return [entry.link() for entry in self.chain]
