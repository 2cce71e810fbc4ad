"""Fahrtwind plans how solar panels are held on the roofs of vehicles."""

import os

__version__ = "0.22.0"

# The matrices here have a few hundred rows. Threads bring them nothing on a quiet machine, and on one that
# draws a page at the same time each waits for the other: a frame of 2 ms then takes 200. Set before NumPy is
# loaded; who sets it for himself keeps it.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

# No package that happens to be installed has a say in how a job is read; looking for such costs every start.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
