"""The sign-off file: what was found of a circuit, a site or a visit, as it was when somebody put their name to it."""

from evenprobe.formats.signed.content import (
    BesideSigned,
    CouldBe,
    Evidence,
    NotTested,
    SignedCircuit,
    SignedContent,
    SignedLimit,
    SignedOf,
    SignedPhoto,
    SignedPoint,
    SignedProof,
    SignedReading,
    SignedTest,
    SignedTester,
    SignedVisit,
    ToDo,
)
from evenprobe.formats.signed.file import LinkEntry, SignOffFile

__all__ = [
    "BesideSigned",
    "CouldBe",
    "Evidence",
    "LinkEntry",
    "NotTested",
    "SignOffFile",
    "SignedCircuit",
    "SignedContent",
    "SignedLimit",
    "SignedOf",
    "SignedPhoto",
    "SignedPoint",
    "SignedProof",
    "SignedReading",
    "SignedTest",
    "SignedTester",
    "SignedVisit",
    "ToDo",
]
