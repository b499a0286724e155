"""Write the API's OpenAPI schema to standard output, keys in order."""

import json
import os
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")

import django

django.setup()

from studio.api import api

print(json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, sort_keys=True))
