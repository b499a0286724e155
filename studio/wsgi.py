import gc
import os
import sqlite3

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")

# Nothing that is loaded is thrown away again, and to look for it takes a fifth of the time. From
# `settle` on it is looked for.
gc.disable()

from studio.playback.drawers import start_early

# It loads while the site does.
start_early()

from django.core.wsgi import get_wsgi_application

application = get_wsgi_application()

from django.conf import settings
from django.urls import get_resolver

from kitecore.programs import settle
from studio.playback.service import service

# As long as one line to it is open, the database's log stays: reading then needs no room on a disk
# that is full, where otherwise each first line would have to make the log anew.
log_keeper = sqlite3.connect(settings.DATABASES["default"]["NAME"], check_same_thread=False)
log_keeper.execute("SELECT count(*) FROM sqlite_schema")

service().wake()
# All that answers is loaded now, not by the first who asks.
get_resolver().url_patterns  # noqa: B018
settle()
