"""What each kind of work on the roof takes in hand, what is read while doing it, and where it hurts. Common
practice, no source; makers' instructions come first.
"""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.tables.work import StepKind

ReadAt = Literal[
    "torque", "skin temperature", "humidity", "position", "pilot hole", "batch", "volts", "photograph"
]
TOOLS: dict[StepKind, tuple[str, ...]] = {
    "measure": ("tape measure",),
    "frames": ("drill", "depth stop", "block of wood"),
    "reach": ("ladder", "cover for the panels"),
    "scars": ("plastic scraper", "sealant gun"),
    "clean": ("bucket", "clean cloths"),
    "mark": ("tape measure", "chalk line", "marker"),
    "dry fit": ("templates", "marker"),
    "pilot": ("drill", "pilot bit", "depth stop"),
    "drill": ("drill", "depth stop", "cutting oil"),
    "deburr": ("deburring tool", "primer", "brush"),
    "lay": ("sealant gun",),
    "prime": ("abrasive pad", "cleaner", "primer", "gloves"),
    "stick": ("roller", "surface thermometer"),
    "stand": ("spanners", "spirit level"),
    "snug": ("screwdriver",),
    "retighten": ("torque wrench", "paint marker"),
    "set": ("spanners", "spirit level"),
    "square": ("tape measure",),
    "torque": ("torque wrench", "paint marker"),
    "night": ("magnet", "vacuum cleaner", "tape"),
    "trim": ("plastic blade",),
    "seal": ("sealant gun", "spatula", "gloves"),
    "plug": ("crimp tool",),
    "lay cables": ("cable clips",),
    "lift": ("suction lifters or straps", "gloves"),
    "tighten": ("torque wrench", "paint marker"),
    "raise": ("pliers", "line to hold it by"),
    "tethers": ("pliers",),
    "meter": ("multimeter",),
    "connect": ("multimeter", "insulated screwdriver"),
    "hose": ("hose", "lamp inside"),
}
READINGS: dict[StepKind, tuple[ReadAt, ...]] = {
    "mark": ("photograph",),
    "pilot": ("pilot hole", "position"),
    "drill": ("position", "pilot hole", "photograph"),
    "prime": ("skin temperature", "humidity"),
    "stick": ("skin temperature", "humidity", "batch", "position"),
    "lay": ("batch",),
    "seal": ("skin temperature", "batch", "photograph"),
    "set": ("position", "photograph"),
    "stand": ("position", "photograph"),
    "torque": ("torque",),
    "retighten": ("torque",),
    "tighten": ("torque", "photograph"),
    "raise": ("photograph",),
    "meter": ("volts",),
    "connect": ("volts",),
    "hose": ("photograph",),
    "write": ("photograph",),
}
CAUTIONS: dict[StepKind, str] = {
    "reach": "You can fall: ladder tied, second person below.",
    "frames": "A bit that runs through ends in the glass.",
    "pilot": "Look behind the skin first: wires, gas, water.",
    "drill": "Goggles on. Depth stop set. Nothing behind the skin.",
    "deburr": "Chips are sharp: gloves, goggles.",
    "prime": "Solvents: gloves, air, no flame.",
    "seal": "Isocyanates and solvents: gloves, air.",
    "scars": "Old cables may be live: test first.",
    "lift": "A panel in wind is a sail. Two lift, a third guides.",
    "raise": "Raised it is a sail, and its hinges pinch: two persons, no wind.",
    "set": "Heavy and awkward: two persons, no wind.",
    "stand": "Heavy and awkward: two persons, no wind.",
    "plug": "Panels are live in light: cover them.",
    "meter": "Live DC: do not touch both ends.",
    "connect": "Live DC cannot be switched off. Battery first.",
    "hose": "A wet roof is slippery: hose from the ladder.",
}
JET_MIN = 5.0
"""Of a soft jet on each place of the seal list."""
