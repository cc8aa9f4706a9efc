"""The server's WSGI entry point. One process with threads, for an ensemble once solved serves them all."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
application = get_wsgi_application()
