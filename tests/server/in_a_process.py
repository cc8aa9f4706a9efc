"""Questions for an interpreter that the tests ask."""

import os
import signal

from evenprobe.interpretation.ensemble import _kept


def process_of(_survey, *_about):
    return os.getpid()


def lost(_survey, *_about):
    os.kill(os.getpid(), signal.SIGKILL)


def fails(_survey, *_about):
    raise ZeroDivisionError("nobody foresaw it")


def ensembles_kept(_survey):
    return _kept.cache_info().currsize
