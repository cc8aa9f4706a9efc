"""What is said of a file that is not as it was signed."""

from evenprobe.sentences import Sentences

PROBLEMS = Sentences(
    {
        "bytes": "the file was written otherwise than it is saved: a space, an order or a number was changed",
        "content": "this is not what was signed: its SHA-256 is {found}, and {signed} was signed",
        "whole": "the file was changed after it was saved: its SHA-256 is {found}, and {saved} was saved",
        "no-link": "a sign-off that is in no chain of this file",
        "missing": "link {number} does not follow the one before it: links are missing, doubled or out of order",
        "altered": "link {number} was changed, or the one before it was",
        "judged-otherwise": "{name}: signed as {signed}, and the same core makes {now} of the same readings",
        "no-evidence": "{name}: signed as {signed}, and the file holds no readings that say so",
    }
)
