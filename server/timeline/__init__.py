"""The line of time: everything recorded of a point, a circuit, a site or a tester, by whom, with what, from where."""
