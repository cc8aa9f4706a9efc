"""A saved file held against its own hashes, byte for byte, and against this core."""

from collections.abc import Iterator, Mapping
from typing import Any

from evenprobe.entries import FormatError, parse, parse_json
from evenprobe.formats.answers.verification import JudgedAgainOut, ProblemOut, SignOffOut, VerificationOut
from evenprobe.formats.signed import SignedContent, SignOffFile
from evenprobe.sentences import Sentence
from evenprobe.signing import broken_links, canonical, digest
from evenprobe.this_core import this_core
from evenprobe.verification.judged_again import JudgedAgain, judged_again
from evenprobe.verification.sentences import PROBLEMS

Problem = tuple[str, Sentence]


def verify_file(saved: bytes) -> VerificationOut:
    """Whether a saved sign-off is as it was signed, and whether this core agrees with it.

    Parameters
    ----------
    saved : bytes
        The file.

    Returns
    -------
    VerificationOut
        What was changed or is missing, and of each sign-off what this core makes of it otherwise.

    Raises
    ------
    FormatError
        Where it is no sign-off at all, or its evidence cannot be used.
    """
    try:
        data = parse_json(saved.decode("utf-8"))
    except UnicodeDecodeError:
        raise FormatError([("", "not UTF-8 text")]) from None
    file = parse(SignOffFile, data)
    again = list(judged_again(file.content))
    problems = [*_bytes(saved, data), *_chain(file), *_content(file, data), *_judged(file.content, again)]
    return VerificationOut(
        sound=not problems,
        core=this_core(),
        problems=[ProblemOut(path=path, text=str(text)) for path, text in problems],
        sign_offs=[_sign_off(file, again)],
    )


def _bytes(saved: bytes, data: Any) -> Iterator[Problem]:
    if saved.removesuffix(b"\n") != canonical(data):
        yield "", PROBLEMS.say("bytes")


def _chain(file: SignOffFile) -> Iterator[Problem]:
    for broken in broken_links(file.links()):
        yield f"chain[{broken.at}]", PROBLEMS.say(broken.why, number=broken.number)


def _content(file: SignOffFile, data: Mapping[str, Any]) -> Iterator[Problem]:
    found, signed = digest(data["content"]), file.chain[-1].content_sha256
    if found != signed:
        yield "content", PROBLEMS.say("content", found=found, signed=signed)


def _judged(content: SignedContent, again: list[JudgedAgain]) -> Iterator[Problem]:
    """What another core makes of the readings is no problem of the file's; what the same core does is."""
    for one in again:
        if one.now is None:
            yield "content.evidence", PROBLEMS.say("no-evidence", name=one.name, signed=one.signed)
        elif one.now != one.signed and content.core == this_core():
            said = {"name": one.name, "signed": one.signed, "now": one.now}
            yield "content.circuits", PROBLEMS.say("judged-otherwise", **said)


def _sign_off(file: SignOffFile, again: list[JudgedAgain]) -> SignOffOut:
    content, own = file.content, file.chain[-1]
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
