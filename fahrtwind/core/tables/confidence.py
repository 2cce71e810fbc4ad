"""How far a source can be trusted."""

from typing import Literal

Confidence = Literal["published", "common practice", "judgement"]
