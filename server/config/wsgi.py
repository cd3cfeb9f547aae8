"""The application that gunicorn serves."""

import os
from importlib import import_module
from threading import Thread

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()
if os.environ.get("ZERODIP_POOL") == "long":
    # The printing library takes a second to load: while nobody waits for it, so that the first
    # report is no slower than the next.
    Thread(target=import_module, args=("weasyprint",), daemon=True).start()
