"""What Django is to look at beside its own before a server is run for a crew: `manage.py check --deploy`."""

import stat
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Tags, Warning, register

_OTHERS = stat.S_IRWXG | stat.S_IRWXO


@register(Tags.security, deploy=True)
def data_is_the_server_s_alone(**_about: Any) -> list[CheckMessage]:
    """The key and the record are in one folder."""
    folder = Path(settings.DATA_DIR)
    if not folder.exists() or not folder.stat().st_mode & _OTHERS:
        return []
    return [Warning(f"others of this machine can look into {folder}", hint=f"chmod 700 {folder}", id="base.W001")]
