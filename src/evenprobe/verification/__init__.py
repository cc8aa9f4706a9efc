"""Whether a saved sign-off is as it was signed: bytes, hash, chain; and its verdicts made again by this core."""

from evenprobe.verification.verify import verify_file

__all__ = ["verify_file"]
