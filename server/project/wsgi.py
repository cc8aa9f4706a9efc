"""The server's WSGI entry point: one process with threads; two interpreters where nothing else is said."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
os.environ.setdefault("INTERPRETERS", "2")
application = get_wsgi_application()
