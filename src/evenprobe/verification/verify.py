"""A saved file held against its own hashes, byte for byte, and against this core."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

from evenprobe.entries import FormatError, parse, parse_json
from evenprobe.formats.answers.verification import ProblemOut, SignOffOut, VerificationOut
from evenprobe.formats.record import RecordFile
from evenprobe.formats.signed import LinkEntry, SignedContent, SignOffFile
from evenprobe.signing import broken_links, canonical, digest
from evenprobe.this_core import this_core
from evenprobe.verification.judged_again import JudgedAgain, judged_again
from evenprobe.verification.sentences import PROBLEMS
from evenprobe.verification.signed_again import judged_otherwise, sign_off

Problem = tuple[str, Any]
Found = tuple[list[Problem], list[SignOffOut]]


def verify_file(saved: bytes) -> VerificationOut:
    """Whether a saved sign-off or record is as it was saved, and whether this core agrees with what was signed.

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
        Where it is neither at all, or the evidence of a sign-off cannot be used.
    """
    try:
        data = parse_json(saved.decode("utf-8"))
    except UnicodeDecodeError:
        raise FormatError([("", "not UTF-8 text")]) from None
    kind = data.get("format") if isinstance(data, dict) else None
    problems, sign_offs = _VERIFIED.get(str(kind), _sign_off_file)(data)
    problems = [*_bytes(saved, data), *problems]
    return VerificationOut(
        sound=not problems,
        core=this_core(),
        problems=[ProblemOut(path=path, text=str(text)) for path, text in problems],
        sign_offs=sign_offs,
    )


def _bytes(saved: bytes, data: Any) -> Iterator[Problem]:
    if saved.removesuffix(b"\n") != canonical(data):
        yield "", PROBLEMS.say("bytes")


def _sign_off_file(data: Any) -> Found:
    file = parse(SignOffFile, data)
    again, link = list(judged_again(file.content)), file.chain[-1]
    problems = [
        *_chain("chain", file.chain),
        *_content("content", digest(data["content"]), link.content_sha256),
        *judged_otherwise("content", file.content, again),
    ]
    return problems, [sign_off(file.content, link, again)]


def _record_file(data: Any) -> Found:
    """The whole against its hash, its chains, and every sign-off in it."""
    file = parse(RecordFile, data)
    problems = [*_whole(data, file), *(p for n, chain in enumerate(file.chains) for p in _chain(f"chains[{n}]", chain))]
    links = {(link.number, link.content_sha256): link for chain in file.chains for link in chain}
    sign_offs = []
    for number, row in enumerate(file.rows.get("sign_offs", [])):
        path = f"rows.sign_offs[{number}]"
        content, link, again = _of_row(path, row, links)
        if link is None:
            problems.append((path, PROBLEMS.say("no-link")))
            continue
        problems += _content(f"{path}.content", digest(parse_json(row["content"])), link.content_sha256)
        problems += judged_otherwise(f"{path}.content", content, again)
        sign_offs.append(sign_off(content, link, again))
    return problems, sign_offs


def _of_row(
    path: str, row: Mapping[str, Any], links: Mapping[tuple[int, str], LinkEntry]
) -> tuple[SignedContent, LinkEntry | None, list[JudgedAgain]]:
    """Raises FormatError with the path of the row."""
    try:
        content = parse(SignedContent, parse_json(str(row.get("content", ""))))
        link = links.get((int(row.get("number", 0)), str(row.get("content_sha256", ""))))
        return content, link, list(judged_again(content))
    except FormatError as error:
        raise FormatError([(f"{path}.content: {inside}", text) for inside, text in error.problems]) from None
    except (TypeError, ValueError):
        raise FormatError([(path, "is no sign-off")]) from None


def _whole(data: Mapping[str, Any], file: RecordFile) -> Iterator[Problem]:
    found = digest({key: value for key, value in data.items() if key != "sha256"})
    if found != file.sha256:
        yield "sha256", PROBLEMS.say("whole", found=found, saved=file.sha256)


def _chain(path: str, chain: Sequence[LinkEntry]) -> Iterator[Problem]:
    for broken in broken_links([entry.link() for entry in chain]):
        yield f"{path}[{broken.at}]", PROBLEMS.say(broken.why, number=broken.number)


def _content(path: str, found: str, signed: str) -> Iterator[Problem]:
    if found != signed:
        yield path, PROBLEMS.say("content", found=found, signed=signed)


_VERIFIED: Mapping[str, Callable[[Any], Found]] = {"even-probe/record": _record_file}
