"""The entry for the web server: one process, several threads."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.site.settings")
application = get_wsgi_application()

from server.plans.solver import solver  # noqa: E402 - needs the settings

solver.warm_up()
