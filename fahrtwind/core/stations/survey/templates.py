"""Vehicles to start from: usual sizes, invented. They fill only what is still blank; measure and overtype
everything.
"""

from __future__ import annotations

from typing import Any

from fahrtwind.core.job.document import Job, VehicleKind

SOURCE = "Invented vehicle of usual size: measure yours"

TEMPLATES: dict[VehicleKind, dict[str, Any]] = {
    "van": {
        "vehicle": {
            "roof_length": "4.35 m",
            "roof_width": "1.56 m",
            "skin": "steel",
            "skin_thickness": "0.8 mm",
            "roof_load_limit": "150 kg",
        },
        "outline": {
            "front_radius": "180 mm",
            "rear_radius": "60 mm",
            "front_narrower": "60 mm",
            "side_fall": "70 mm",
            "front_fall": "120 mm",
        },
        "point_rows": [
            {
                "id": "w1",
                "name": "port points",
                "kind": "threaded_hole",
                "start": "620 mm",
                "y": "-690 mm",
                "pitch": "880 mm",
                "count": 4,
                "rating": "50 kg",
                "thread": "M8",
            },
            {
                "id": "w2",
                "name": "starboard points",
                "kind": "threaded_hole",
                "start": "620 mm",
                "y": "690 mm",
                "pitch": "880 mm",
                "count": 4,
                "rating": "50 kg",
                "thread": "M8",
            },
        ],
        "members": {"kind": "steel_hat", "wall": "0.9 mm", "face_width": "40 mm", "depth": "25 mm"},
    },
    "bus": {
        "vehicle": {
            "roof_length": "9.2 m",
            "roof_width": "2.4 m",
            "skin": "steel",
            "skin_thickness": "16 ga",
        },
        "outline": {
            "front_radius": "300 mm",
            "rear_radius": "200 mm",
            "side_fall": "110 mm",
            "front_fall": "200 mm",
            "rear_fall": "120 mm",
        },
        "members": {"kind": "steel_hat", "wall": "1.5 mm", "face_width": "45 mm", "depth": "38 mm"},
    },
    "rv": {
        "vehicle": {
            "roof_length": "6.9 m",
            "roof_width": "2.25 m",
            "skin": "membrane",
            "ply_thickness": "3/8 in",
        },
        "outline": {"front_radius": "150 mm", "side_fall": "40 mm", "front_fall": "250 mm"},
        "sections": [
            {
                "id": "c1",
                "kind": "raised",
                "name": "cab overhang",
                "x": "0",
                "y": "0",
                "length": "900 mm",
                "width": "2.1 m",
                "step": "60 mm",
            }
        ],
        "members": {"kind": "wood_truss", "face_width": "38 mm", "depth": "60 mm"},
    },
    "trailer": {
        "vehicle": {
            "roof_length": "4.9 m",
            "roof_width": "2.1 m",
            "skin": "membrane",
            "ply_thickness": "3/8 in",
        },
        "outline": {"front_radius": "80 mm", "rear_radius": "80 mm", "side_fall": "30 mm"},
        "members": {"kind": "wood_truss", "face_width": "38 mm", "depth": "50 mm"},
    },
    "boat": {
        "vehicle": {
            "roof_length": "3.4 m",
            "roof_width": "2.1 m",
            "skin": "fibreglass",
            "skin_thickness": "7 mm",
        },
        "outline": {
            "front_radius": "320 mm",
            "rear_radius": "140 mm",
            "front_narrower": "280 mm",
            "taper_run": "1.2 m",
            "side_fall": "60 mm",
            "front_fall": "150 mm",
        },
        "sections": [
            {
                "id": "c1",
                "kind": "deck",
                "name": "fore deck",
                "x": "0",
                "y": "0",
                "length": "1.1 m",
                "width": "1.5 m",
                "step": "-240 mm",
            },
            {
                "id": "c2",
                "kind": "hard_top",
                "name": "hard top",
                "x": "1.2 m",
                "y": "0",
                "length": "1.5 m",
                "width": "1.9 m",
                "step": "0",
            },
            {
                "id": "c3",
                "kind": "arch",
                "name": "stern arch",
                "x": "3.1 m",
                "y": "0",
                "length": "120 mm",
                "width": "2 m",
                "step": "350 mm",
            },
        ],
        "members": {},
    },
    "truck_bed": {
        "vehicle": {
            "roof_length": "1.75 m",
            "roof_width": "1.6 m",
            "skin": "aluminium",
            "skin_thickness": "2 mm",
        },
        "outline": {},
        "sections": [
            {
                "id": "c1",
                "kind": "side_rail",
                "name": "port rail",
                "x": "0",
                "y": "-780 mm",
                "length": "1.75 m",
                "width": "40 mm",
                "step": "60 mm",
            },
            {
                "id": "c2",
                "kind": "side_rail",
                "name": "starboard rail",
                "x": "0",
                "y": "780 mm",
                "length": "1.75 m",
                "width": "40 mm",
                "step": "60 mm",
            },
        ],
        "point_rows": [
            {
                "id": "w1",
                "name": "port track",
                "kind": "track",
                "start": "100 mm",
                "y": "-780 mm",
                "pitch": "310 mm",
                "count": 6,
                "rating": "60 kg",
            },
            {
                "id": "w2",
                "name": "starboard track",
                "kind": "track",
                "start": "100 mm",
                "y": "780 mm",
                "pitch": "310 mm",
                "count": 6,
                "rating": "60 kg",
            },
        ],
        "members": {},
    },
}


def fill_from_template(job: Job, kind: VehicleKind) -> dict[str, Any]:
    """The job's data with the template's values wherever the job has none yet."""
    template, data, blank = TEMPLATES[kind], job.model_dump(), Job(name="blank").model_dump()
    data["vehicle"]["kind"] = kind
    _fill(data["vehicle"], template["vehicle"], blank["vehicle"])
    _fill(data["members"], template["members"], blank["members"])
    _fill(data["survey"]["outline"], template["outline"], blank["survey"]["outline"])
    for name in ("sections", "point_rows"):
        if not data["survey"][name]:
            data["survey"][name] = template.get(name, [])
    return data


def _fill(target: dict[str, Any], values: dict[str, Any], blank: dict[str, Any]) -> None:
    for key, value in values.items():
        if target[key] == blank[key]:
            target[key] = value
