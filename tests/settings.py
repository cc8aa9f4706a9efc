"""The server's settings, served over plain HTTP as the demo is: the tests speak to it on this machine."""

import os

os.environ.setdefault("PLAIN_HTTP", "1")

from project.settings import *  # noqa: F403
