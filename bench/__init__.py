"""What `make bench` runs: truths never struck out, and what it costs."""
