"""What phones in the house need to reach this server: its addresses, and a certificate made on the spot.

Browsers keep what opens without a line, and what keeps a screen awake, for pages over HTTPS. The authority that signs
the certificate is made once and kept with the data, so that a phone trusts it once; the certificate itself is made anew
for the addresses of the day.
"""

import socket
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import trustme

_VALID_FOR = timedelta(days=180)
"""Phones refuse certificates that are valid for years."""
_SOMEWHERE_ELSE = ("192.0.2.1", 9)
"""An address of nobody (RFC 5737): which of its own a machine would use towards it, nothing being sent."""
TRUSTED = "trust.crt"


@dataclass(frozen=True)
class Certificate:
    """`authority`: what a phone is to trust; `chain`, `key`: what the server shows and keeps to itself."""

    authority: Path
    chain: Path
    key: Path


def address_here() -> str | None:
    """The address of this machine in the house; None where it is in none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(_SOMEWHERE_ELSE)
        except OSError:
            return None
        found: str = probe.getsockname()[0]
    return found if found != "0.0.0.0" else None


def certificate(folder: Path, names: list[str]) -> Certificate:
    """A certificate for these names, signed by the authority kept in the folder, which is made where there is none."""
    folder.mkdir(parents=True, exist_ok=True)
    made = Certificate(folder / TRUSTED, folder / "server.crt", folder / "server.key")
    secret = folder / "authority.key"
    if made.authority.exists() and secret.exists():
        authority = trustme.CA.from_pem(made.authority.read_bytes(), secret.read_bytes())
    else:
        authority = trustme.CA(organization_name="Even Probe", organization_unit_name="this server's own")
        _keep(secret, authority.private_key_pem.bytes())
        authority.cert_pem.write_to_path(made.authority)
    now = datetime.now(UTC)
    issued = authority.issue_cert(*names, not_before=now - timedelta(days=1), not_after=now + _VALID_FOR)
    made.chain.write_bytes(b"".join(part.bytes() for part in issued.cert_chain_pems))
    _keep(made.key, issued.private_key_pem.bytes())
    return made


def _keep(path: Path, secret: bytes) -> None:
    path.touch(mode=0o600)
    path.chmod(0o600)
    path.write_bytes(secret)
