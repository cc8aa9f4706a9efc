"""The server's commands as another machine runs them: a place of its own, and nothing of how the tests are run."""

import subprocess
import sys
from pathlib import Path

from bench.serving import elsewhere
from django.conf import settings


def manage(data, *words, **environment):
    """`data`: the folder of all it keeps."""
    command = [sys.executable, str(Path(settings.ROOT) / "server" / "manage.py"), *words]
    told = {**elsewhere(data), **environment}
    return subprocess.run(command, env=told, capture_output=True, text=True, check=False)
