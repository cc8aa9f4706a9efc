"""JSON written down in one way only, so that the same content has the same bytes, and its hash."""

import hashlib
import json
from typing import Any


def canonical(content: Any) -> bytes:
    """The content as it is hashed and saved: keys in order, no spaces, UTF-8.

    Parameters
    ----------
    content
        Plain data, as JSON gives it.

    Returns
    -------
    bytes
        The same for the same content.

    Raises
    ------
    ValueError
        For a number that is none.

    Examples
    --------
    >>> canonical({"unit": "Ω", "at": [1, 2.5]}).decode()
    '{"at":[1,2.5],"unit":"Ω"}'
    """
    return json.dumps(content, sort_keys=True, separators=(",", ":"), ensure_ascii=False, allow_nan=False).encode()


def digest(content: Any) -> str:
    """SHA-256 of the content's canonical JSON.

    Parameters
    ----------
    content
        Plain data, as JSON gives it.

    Returns
    -------
    str
        64 hexadecimal digits.

    Examples
    --------
    >>> digest({"b": 1, "a": 2}) == digest({"a": 2, "b": 1})
    True
    """
    return hashlib.sha256(canonical(content)).hexdigest()
