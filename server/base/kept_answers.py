"""Answers kept by their content, in files. One that cannot be kept is made again: no answer is refused for it."""

import logging
from typing import Any

from django.core.cache.backends.base import DEFAULT_TIMEOUT
from django.core.cache.backends.filebased import FileBasedCache

logger = logging.getLogger("evenprobe")


class KeptAnswers(FileBasedCache):
    """Django's own in files, that a full or read-only disk, or a file somebody spoiled, does not stop."""

    def set(self, key: Any, value: Any, timeout: Any = DEFAULT_TIMEOUT, version: int | None = None) -> None:
        try:
            super().set(key, value, timeout, version)
        except OSError as error:
            logger.warning("an answer could not be kept: %s", error)

    def get(self, key: Any, default: Any = None, version: int | None = None) -> Any:
        try:
            return super().get(key, default, version)
        except Exception as error:
            logger.warning("a kept answer could not be read: %s", error)
            return default
