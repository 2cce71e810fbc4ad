"""What a shop that works in inches has on its shelf."""


def inch_bracket(lever: str, toe: str, length: str) -> dict[str, str]:
    return {"thickness": "3/16 in", "length": length, "lever": lever, "toe": toe, "frame_bolt": "1/4-20"}
