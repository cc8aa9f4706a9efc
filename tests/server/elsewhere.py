"""The server's commands as another machine runs them: a place of its own, and nothing of how the tests are run."""

import os
import subprocess
import sys
from pathlib import Path

from django.conf import settings

_OF_THE_TESTS = ("DJANGO_SETTINGS_MODULE", "DJANGO_ALLOW_ASYNC_UNSAFE", "PLAIN_HTTP", "DATABASE_URL", "SECRET_KEY")


def manage(data, *words, **environment):
    """`data`: the folder of all it keeps."""
    own = {name: value for name, value in os.environ.items() if name not in _OF_THE_TESTS}
    command = [sys.executable, str(Path(settings.ROOT) / "server" / "manage.py"), *words]
    told = {**own, "EVENPROBE_DATA": str(data), **environment}
    return subprocess.run(command, env=told, capture_output=True, text=True, check=False)
