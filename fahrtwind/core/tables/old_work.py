"""What old work costs to take off and how its scar is closed. Common practice, no source."""

from fahrtwind.core.records import dataclass

SOURCE = "Six glued flexible panels about three person-hours; the rest likewise: common practice, no source"


@dataclass(frozen=True, slots=True)
class OldWork:
    """Minutes to take one off with which tools, and how the place is closed on metal or laminate and on a
    membrane.
    """

    words: str
    minutes: float
    close: str
    close_membrane: str
    tools: str


OLD_WORK = {
    "hole": OldWork(
        "old hole",
        6,
        "Deburr, prime bare metal, plug and cap with sealant or a bonded patch.",
        "Fill, then a membrane patch 50 mm beyond on all sides with its own primer and lap sealant.",
        "countersink, brush",
    ),
    "screw": OldWork(
        "old screw",
        2,
        "Draw it, deburr, prime, close with sealant and a cap.",
        "Draw it, fill, cover with a membrane patch and lap sealant.",
        "screwdriver or pliers",
    ),
    "cable": OldWork(
        "cut cable",
        10,
        "Cap the live end, pull it in, close the hole like any other.",
        "Cap the live end, pull it in, close the hole like any other.",
        "side cutter, insulating caps",
    ),
    "glue_dab": OldWork(
        "dab of old sealant",
        5,
        "Cut and scrape with a plastic blade, wipe, check that the paint is sound.",
        "Cut it flat, leave the rest: pulling tears the membrane. Cover with lap sealant.",
        "plastic scraper, wipes",
    ),
    "glued_panel": OldWork(
        "glued flexible panel",
        30,
        "Bar over a thin board, then scrape every dab and wipe.",
        "Bar over a thin board, slowly; then patch what tore.",
        "pry bars, thin board, cutting wire",
    ),
    "bolted_panel": OldWork(
        "bolted panel",
        20,
        "Two people lift it off; each hole left is closed like an old hole.",
        "Two people lift it off; each hole left is patched like an old hole.",
        "spanners, two people",
    ),
}
