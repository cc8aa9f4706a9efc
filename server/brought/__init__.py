"""Where things came from that were not written down here: the files that were brought in."""
