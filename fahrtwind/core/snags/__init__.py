"""Snag rules, one file per station. Importing this package declares all of them."""

from fahrtwind.core.snags import arrangement, build, hold, layout, silent, structure, survey
from fahrtwind.core.snags.model import RULES, find_snags

__all__ = ["RULES", "arrangement", "build", "find_snags", "hold", "layout", "silent", "structure", "survey"]
