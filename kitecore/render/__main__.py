"""``python -m kitecore.render FD MEDIA``: the program that `kitecore.render.worker` tells of."""

from __future__ import annotations

import gc

# Nothing that is loaded is thrown away again, and to look for it takes a fifth of the time. From
# `settle` on it is looked for.
gc.disable()

from kitecore.render.worker import main

main()
