#!/usr/bin/env python
import os
import sys
import tempfile

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")
    if sys.argv[1:2] == ["test"]:
        # Tests keep nothing beside what people keep; the runner clears this folder away.
        os.environ["VELVET_KITE_DATA"] = tempfile.mkdtemp(prefix="velvet-kite-tests-")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)
