"""Sites, supplies, boards, circuits and points."""
