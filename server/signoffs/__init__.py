"""Sign-offs: what was found of a circuit, a site or a visit, signed, never changed, each chained to the one before."""
