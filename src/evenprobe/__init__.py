"""The core of Even Probe: what electrical readings can still mean, by elimination on one network model.

Pure computation. No HTTP, no database, no clock; `cli` alone reads the files it is given.
"""

from importlib.metadata import version

__version__ = version("even-probe")
