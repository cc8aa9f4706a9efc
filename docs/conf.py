"""The site of the documentation: the pages beside this file, and what the core offers, by Sphinx."""

import evenprobe

project = "Even Probe"
version = release = evenprobe.__version__
extensions = ["myst_parser", "sphinx.ext.autodoc", "sphinx.ext.napoleon", "sphinx.ext.viewcode"]
source_suffix = {".md": "markdown"}
exclude_patterns = ["screenshots"]
html_theme = "alabaster"
html_show_sphinx = False
napoleon_google_docstring = False
autodoc_typehints = "description"
autodoc_member_order = "bysource"
myst_heading_anchors = 3
nitpicky = False
suppress_warnings = ["myst.xref_missing"]
