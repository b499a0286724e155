import os
import sqlite3

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")
application = get_wsgi_application()

from django.conf import settings

from kitecore.programs import settle
from studio.playback.service import service

# As long as one line to it is open, the database's log stays: reading then needs no room on a disk
# that is full, where otherwise each first line would have to make the log anew.
log_keeper = sqlite3.connect(settings.DATABASES["default"]["NAME"], check_same_thread=False)
log_keeper.execute("SELECT count(*) FROM sqlite_schema")

service().wake()
settle()
