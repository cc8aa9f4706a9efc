"""What is signed, so that nobody can change it unseen: one way to write JSON down, its hash, and hashes in a chain.

SHA-256 (FIPS 180-4) of JSON in one canonical form, in the spirit of RFC 8785: keys in order, no spaces, UTF-8.
"""

from evenprobe.signing.canonical import canonical, digest
from evenprobe.signing.chain import Broken, Link, broken_links, link_after

__all__ = ["Broken", "Link", "broken_links", "canonical", "digest", "link_after"]
