"""The rules of making a short video, and their computation.

Knows neither Django nor the web. Rooms, from the ground up:

``ticks``     exact time
``document``  what a project is
``motion``    values over time
``media``     files in
``colour``, ``picture``, ``sound``   pixels and samples
``edits``     what can be done to a document
``render``    document and time to picture and sound, and to files
"""

import os

# Kernels are single-threaded, many of them side by side; NumPy's linear algebra has to be so too.
# On two busy cores its own threads make an inverse of 300 × 300 numbers take seconds.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
