"""History: every change of structure, with who, when, before and after."""
