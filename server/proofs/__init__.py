"""Proofs of isolation."""
