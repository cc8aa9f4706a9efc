"""The server's WSGI entry point: one process with threads; two interpreters where nothing else is said.

All that is loaded before the first request is left out of what the garbage collector looks through again and again.
"""

import gc
import os
from importlib import import_module

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
os.environ.setdefault("INTERPRETERS", "2")
application = get_wsgi_application()
import_module("project.urls")
gc.collect()
gc.freeze()
