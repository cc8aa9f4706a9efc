"""Visits: a day at a site planned, walked and closed. What is done is what the record shows."""
