"""What of one sign-off is said: who signed what, and where this core makes something else of the same readings."""

from collections.abc import Iterator, Sequence

from evenprobe.formats.answers.verification import JudgedAgainOut, SignOffOut
from evenprobe.formats.signed import LinkEntry, SignedContent
from evenprobe.sentences import Sentence
from evenprobe.this_core import this_core
from evenprobe.verification.judged_again import JudgedAgain
from evenprobe.verification.sentences import PROBLEMS


def judged_otherwise(path: str, content: SignedContent, again: Sequence[JudgedAgain]) -> Iterator[tuple[str, Sentence]]:
    """What another core makes of the readings is no problem of the file's; what the same core does is."""
    for one in again:
        if one.now is None:
            yield f"{path}.evidence", PROBLEMS.say("no-evidence", name=one.name, signed=one.signed)
        elif one.now != one.signed and content.core == this_core():
            said = {"name": one.name, "signed": one.signed, "now": one.now}
            yield f"{path}.circuits", PROBLEMS.say("judged-otherwise", **said)


def sign_off(content: SignedContent, own: LinkEntry, again: Sequence[JudgedAgain]) -> SignOffOut:
    """`own`: its link of the chain."""
    return SignOffOut(
        number=own.number,
        of=f"{content.of.what}: {content.of.name}",
        by=content.by,
        signed_at=content.signed_at,
        link_sha256=own.link_sha256,
        core=content.core,
        same_core=content.core == this_core(),
        judged=len(again),
        differ=[
            JudgedAgainOut(id=one.id, name=one.name, signed=one.signed, now=one.now or "nothing")
            for one in again
            if one.now != one.signed
        ],
    )
