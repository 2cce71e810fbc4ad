"""All tests. The package is loaded before NumPy is: it says how many threads that takes."""

import fahrtwind  # noqa: F401
