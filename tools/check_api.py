"""Fail if the API's schema or the TypeScript types made from it are not the newest (`make api`)."""

from __future__ import annotations

import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def main() -> int:
    schema = subprocess.run(
        [sys.executable, str(ROOT / "tools" / "api_schema.py")],
        check=True,
        capture_output=True,
        text=True,
    ).stdout
    kept = ROOT / "web" / "openapi.json"
    types = ROOT / "web" / "src" / "api" / "schema.d.ts"
    with tempfile.TemporaryDirectory() as folder:
        fresh = Path(folder) / "schema.d.ts"
        command = ["npx", "--no-install", "openapi-typescript", str(kept), "-o", str(fresh)]
        subprocess.run(command, check=True, capture_output=True, cwd=ROOT / "web")
        good = schema == kept.read_text() and fresh.read_text() == types.read_text()
    print("API types are fresh" if good else "API types are old: run “make api”")
    return 0 if good else 1


if __name__ == "__main__":
    sys.exit(main())
