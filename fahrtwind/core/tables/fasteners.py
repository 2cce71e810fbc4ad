"""Screws and bolts a foot may use, with drill sizes."""

from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class Screw:
    """A wood or sheet-metal screw, mm; ``wood_mm`` is its diameter as a wood screw (NDS Appendix L). Pilot
    sizes: usual shop values, common practice.
    """

    name: str
    diameter_mm: float
    head_mm: float
    pilot_metal_mm: float
    pilot_wood_mm: float
    wood_mm: float

    @property
    def core_mm(self) -> float:
        """Root diameter, about 0.7 of the nominal one (common practice)."""
        return 0.7 * self.diameter_mm


SCREWS = {
    s.name: s
    for s in (
        Screw("#8", 4.166, 8.0, 3.0, 2.5, 4.166),
        Screw("#10", 4.826, 9.4, 3.5, 2.8, 4.826),
        Screw("#12", 5.486, 10.8, 4.0, 3.2, 5.486),
        Screw("#14", 6.350, 12.4, 5.0, 4.0, 6.147),
    )
}
SCREW_SOURCE = (
    "Diameters: AISI S100 commentary, Table C-J4; root 0.7 of nominal and pilot sizes: common practice"
)
SCREW_STRENGTH_N_MM2 = 500.0
SCREW_STEEL_SOURCE = "Stainless A2-50, ISO 3506-1: R_m 500 N/mm²"


@dataclass(frozen=True, slots=True)
class Bolt:
    """A threaded bolt, all mm: nominal diameter, pitch, clearance hole (ISO 273 medium), washer, drill before
    a tap, washer's thickness, height of a nylon-insert nut, across flats, and the outside of its socket.
    """

    name: str
    diameter_mm: float
    pitch_mm: float
    clearance_mm: float
    washer_mm: float
    tap_drill_mm: float
    washer_thick_mm: float
    lock_nut_mm: float
    flats_mm: float
    socket_mm: float

    @property
    def thread_form(self) -> float:
        """Constant of the stress area: metric threads, or inch ones with their pitch in the name."""
        return 0.9382 if self.name.startswith("M") else 0.9743


BOLTS = {
    b.name: b
    for b in (
        Bolt("M5", 5, 0.8, 5.5, 10, 4.2, 1.0, 6.8, 8, 12.0),
        Bolt("M6", 6, 1.0, 6.6, 12, 5.0, 1.6, 8.0, 10, 15.0),
        Bolt("M8", 8, 1.25, 9.0, 16, 6.8, 1.6, 9.5, 13, 18.5),
        Bolt("M10", 10, 1.5, 11.0, 20, 8.5, 2.0, 11.9, 16, 22.5),
        Bolt("1/4-20", 6.35, 1.27, 7.0, 16, 5.105, 1.65, 8.3, 11.11, 16.0),
        Bolt("5/16-18", 7.9375, 25.4 / 18, 8.5, 17.5, 6.528, 1.65, 9.3, 12.7, 18.0),
        Bolt("3/8-16", 9.525, 1.5875, 10.5, 20.6, 7.938, 1.65, 11.9, 14.29, 20.5),
    )
}
RIVET_NUT_HOLES_MM = {
    "M5": 7.0,
    "M6": 9.0,
    "M8": 11.0,
    "M10": 13.0,
    "1/4-20": 9.9,
    "5/16-18": 12.7,
    "3/8-16": 13.5,
}
WELL_NUT_HOLES_MM = {
    "M5": 9.5,
    "M6": 10.0,
    "M8": 16.0,
    "M10": 19.0,
    "1/4-20": 12.7,
    "5/16-18": 15.9,
    "3/8-16": 19.0,
}
EXPANDING_HOLES_MM = {
    "M5": 9.0,
    "M6": 11.0,
    "M8": 14.0,
    "M10": 18.0,
    "1/4-20": 11.0,
    "5/16-18": 14.0,
    "3/8-16": 18.0,
}
"""Holes for inserts: usual shop values, common practice; the maker's sheet decides."""
WELL_NUT_BULGE = 1.6
"""A rubber sleeve squeezed behind the board, over its hole (common practice)."""
RIVET_PULL_N, RIVET_SHEAR_N = 1500.0, 1200.0
RIVET_SOURCE = (
    "Blind rivets 4.8 mm, aluminium to steel: low end of makers' ranges, from memory; type your sheet's"
)

BOLT_SOURCE = (
    "ISO 273:1979 medium holes; ISO 7089 washers; ISO 7040 lock nuts; sockets by ISO 2725; inch sizes ASME "
    "B1.1 and B18.21.1 type A, tap drills #7, F and 5/16; from memory"
)
BOLT_STRENGTH_N_MM2 = 700.0
BOLT_STEEL_SOURCE = "Stainless A2-70, ISO 3506-1: R_m 700 N/mm²; factor 2.0 on tensile strength"
BOLT_FACTOR = 2.0
BOLT_PROOF_N_MM2 = 450.0
"""0.2 % proof stress of class 70 (ISO 3506-1)."""
NUT_FACTORS = {"dry": 0.20, "oil": 0.15, "anti_seize": 0.12}
NUT_FACTOR_SOURCE = (
    "Shigley, Mechanical Engineering Design, Table 8-15: dry 0.20, anti-seize 0.12; oiled 0.15 common "
    "practice"
)
PRELOAD_SHARE, PRELOAD_SCATTER = 0.75, 0.25
PRELOAD_SOURCE = "75 % of proof (Shigley 8-9, joints that are taken apart); torque wrench ± 25 % (VDI 2230)"
LENGTHS_MM = (16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 110, 120, 130, 140, 150)
"""ISO 4014 and 4017, lengths that are sold, from memory; wood screws alike (common practice)."""
INCH_LENGTHS = (0.5, 0.625, 0.75, 0.875, 1.0, 1.25, 1.5, 1.75, 2.0, 2.25, 2.5, 2.75, 3.0, 3.5, 4.0, 4.5, 5.0)
"""Inches; common practice."""
