"""A site's or a crew's whole record out as one file and in again, and tables in."""
