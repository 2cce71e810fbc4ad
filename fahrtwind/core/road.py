"""The stations of the road, in the order of the work."""

from typing import Literal, get_args

Station = Literal["survey", "structure", "layout", "hold", "build", "seal", "wire", "days", "roof-day", "log"]
ROAD: tuple[Station, ...] = get_args(Station)
NOT_BUILT: tuple[Station, ...] = ()
BUILT: tuple[Station, ...] = tuple(s for s in ROAD if s not in NOT_BUILT)
