"""Every declared formula beside a number that was not computed by it.

Tags: published (a value printed in the named source), hand (arithmetic written out here), library (a general-purpose
library). "CHECKS" stands for values recomputed with an independent library when the trade's facts were gathered.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, Literal

LBF, INCH, PSI = 4.4482216, 25.4, 0.00689476


@dataclass(frozen=True)
class Check:
    formula: str
    given: dict[str, Any]
    expected: float
    within: float
    tag: Literal["published", "hand", "library"]
    source: str


def c(formula: str, given: dict[str, Any], expected: float, within: float, tag: str, source: str) -> Check:
    return Check(formula, given, expected, within, tag, source)  # type: ignore[arg-type]


CHECKS = [
    # air
    c("air_density", {"altitude_m": 0}, 1.225, 1e-6, "published", "ISO 2533: sea level 1.225 kg/m³"),
    c("air_density", {"altitude_m": 1500}, 1.0581, 2e-4, "published", "ISO 2533 table: 1500 m 1.0581 kg/m³"),
    c("air_density", {"altitude_m": 3000}, 0.90925, 4e-4, "published", "ISO 2533 table: 3000 m 0.90925 kg/m³"),
    c("air_speed", {"road_speed_m_s": 30, "gust_m_s": 8}, 38, 1e-12, "hand", "30 + 8"),
    c("dynamic_pressure", {"density_kg_m3": 1.225, "speed_m_s": 110 / 3.6}, 572, 1e-3, "library", "110 km/h at sea level: 572 Pa"),
    c("dynamic_pressure", {"density_kg_m3": 1.225, "speed_m_s": 130 / 3.6}, 799, 1e-3, "library", "130 km/h at sea level: 799 Pa"),
    c("dynamic_pressure", {"density_kg_m3": 1.225, "speed_m_s": 90 * 0.44704}, 991, 1e-3, "library", "90 mph at sea level: 991 Pa"),
    c("speed_at_pressure", {"pressure_pa": 0.5 * 1.2 * 40**2, "density_kg_m3": 1.2, "gust_m_s": 10}, 30, 1e-9, "hand", "inverse: 40 − 10"),
    c("suction_for_area", {"c_1": 2.5, "c_10": 1.8, "area_m2": 1.7}, 2.339, 2e-4, "library", "EN 1991-1-4 zone F, 1.7 m²: 2.339"),
    c("suction_for_area", {"c_1": 2.0, "c_10": 1.2, "area_m2": 1.7}, 1.816, 2e-4, "library", "EN 1991-1-4 zone G, 1.7 m²: 1.816"),
    c("suction_for_area", {"c_1": 1.2, "c_10": 0.7, "area_m2": 1.7}, 1.085, 3e-4, "library", "EN 1991-1-4 zone H, 1.7 m²: 1.085"),
    c("suction_for_area", {"c_1": 2.5, "c_10": 1.8, "area_m2": 0.4}, 2.5, 1e-9, "published", "EN 1991-1-4 7.2.1: below 1 m² the value for 1 m²"),
    c("windward_zone_depth", {"width_mm": 2350}, 2350, 1e-9, "published", "EN 1991-1-4 Figure 7.2: e = b where b < 2h"),
    c("net_uplift_coefficient", {"suction": 1.816, "ram": 0.8, "floor": 1.2}, 2.616, 1e-9, "hand", "1.816 + 0.8"),
    c("net_uplift_coefficient", {"suction": 0.2, "ram": 0, "floor": 1.2}, 1.2, 1e-9, "hand", "floor"),
    c("slipstream_uplift", {"pressure_pa": 799, "coefficient_area_m2": 1.2 * 1.7}, 799 * 1.2 * 1.7, 1e-9, "hand", "q·c·A"),
    c("slipstream_drag", {"pressure_pa": 572, "drag_coefficient": 2.0, "width_mm": 1000, "height_mm": 75}, 572 * 2 * 1.0 * 0.075, 1e-9, "hand", "q·c·b·h in metres"),
    # road, weight, volumes
    c("road_force", {"mass_kg": 20, "acceleration_g": 0.8}, 20 * 0.8 * 9.80665, 1e-9, "hand", "EN 12195-1: 0.8 g forward"),
    c("holding_weight", {"mass_kg": 20, "bump_g": 0}, 196.133, 1e-6, "hand", "20 · 9.80665"),
    c("holding_weight", {"mass_kg": 20, "bump_g": 2}, -196.133, 1e-6, "hand", "2 g up leaves 1 g upward"),
    c("added_roof_mass", {"panels_kg": 80, "feet": 24, "foot_kg": 0.35}, 88.4, 1e-9, "hand", "80 + 24 · 0.35"),
    c("bead_volume", {"diameter_mm": 6, "length_mm": 1000}, math.pi * 9, 1e-9, "hand", "π r² L in ml"),
    # sharing and verdict
    c("foot_pull", {"stiffness_n_mm": 100, "lift_mm": 2, "pitch": 0.001, "roll": -0.002, "x_mm": 500, "y_mm": 300}, 190, 1e-9, "hand", "100·(2 + 0.5 − 0.6)"),
    c("foot_shear", {"along_n": 30, "across_n": 40, "twist_n_mm": 0, "x_mm": 100, "y_mm": 9}, 50, 1e-9, "hand", "3-4-5 triangle"),
    c("foot_shear", {"along_n": 0, "across_n": 0, "twist_n_mm": 2, "x_mm": 3, "y_mm": 4}, 10, 1e-9, "hand", "M r / J, r = 5"),
    c("utilisation", {"pull_n": 300, "shear_n": 100, "pull_capacity_n": 600, "shear_capacity_n": 400}, 0.75, 1e-9, "hand", "0.5 + 0.25"),
    c("utilisation", {"pull_n": -300, "shear_n": 100, "pull_capacity_n": 600, "shear_capacity_n": 400}, 0.25, 1e-9, "hand", "pushing down uses no pull"),
    c("limit_pressure", {"constant_pull_n": -100, "pull_per_pa": 1, "constant_shear_n": 0, "shear_per_pa": 0, "pull_capacity_n": 900, "shear_capacity_n": 1}, 1000, 1e-9, "hand", "(900 + 100)/1"),
    c("limit_pressure", {"constant_pull_n": 0, "pull_per_pa": 1, "constant_shear_n": 50, "shear_per_pa": 0.1, "pull_capacity_n": 1000, "shear_capacity_n": 100}, 250, 1e-9, "hand", "q/1000 + 0.5 + q/1000 = 1"),
    # sheet metal screws
    c("screw_pull_out", {"thickness_mm": 0.8, "diameter_mm": 4.826, "strength_n_mm2": 270}, 886, 1e-3, "library", "#10 in 0.8 mm, F_u 270: 886 N nominal"),
    c("screw_pull_out", {"thickness_mm": 0.0346 * INCH, "diameter_mm": 0.164 * INCH, "strength_n_mm2": 45_000 * PSI}, 72 * 3 * LBF, 0.01, "published", "SSMA technical guide: #8 in 33 mil, 72 lbf allowable, Ω = 3"),
    c("screw_pull_out", {"thickness_mm": 0.0346 * INCH, "diameter_mm": 0.190 * INCH, "strength_n_mm2": 45_000 * PSI}, 84 * 3 * LBF, 0.01, "published", "SSMA technical guide: #10 in 33 mil, 84 lbf allowable, Ω = 3"),
    c("pull_over", {"thickness_mm": 1.5, "washer_mm": 12, "strength_n_mm2": 270}, 1.5 * 1.5 * 12 * 270, 1e-9, "hand", "AISI S100 J4.4.2 written out"),
    c("screw_shear", {"thickness_mm": 0.0346 * INCH, "diameter_mm": 0.190 * INCH, "strength_n_mm2": 45_000 * PSI}, 177 * 3 * LBF, 0.02, "published", "SSMA technical guide, from memory: #10 in 33 mil, 177 lbf allowable, Ω = 3"),
    c("several", {"count": 4, "single_n": 250}, 1000, 1e-9, "hand", "4 · 250"),
    c("design_capacity", {"nominal_n": 886, "factor": 3}, 295, 2e-3, "library", "#10 in 0.8 mm: 295 N allowable"),
    # wood
    c("wood_screw_withdrawal", {"gravity": 0.50, "diameter_mm": 0.190 * INCH}, 135 * LBF / INCH, 0.01, "published", "NDS 2018 Table 12.2B: #10, G = 0.50: 135 lbf/in"),
    c("lag_screw_withdrawal", {"gravity": 0.50, "diameter_mm": 0.25 * INCH}, 225 * LBF / INCH, 0.005, "published", "NDS 2018 Table 12.2A: 1/4 in, G = 0.50: 225 lbf/in"),
    c("lag_screw_withdrawal", {"gravity": 0.50, "diameter_mm": 0.3125 * INCH}, 266 * LBF / INCH, 0.005, "published", "NDS 2018 Table 12.2A: 5/16 in: 266 lbf/in"),
    c("lag_screw_withdrawal", {"gravity": 0.50, "diameter_mm": 0.375 * INCH}, 305 * LBF / INCH, 0.005, "published", "NDS 2018 Table 12.2A: 3/8 in: 305 lbf/in"),
    c("wood_screw_failure", {"gravity": 0.36, "diameter_mm": 0.216 * INCH, "thread_mm": INCH}, 15_700 * 0.36**2 * 0.216 * 1.0 * LBF, 0.002, "published", "Wood Handbook equation 8-4 in inch units: 15,700 G² D L"),
    c("wood_design_withdrawal", {"withdrawal_n_mm": 10, "thread_mm": 20, "duration": 1.6, "wet": 0.7}, 224, 1e-9, "hand", "10·20·1.6·0.7"),
    c("wood_screw_lateral", {"density_kg_m3": 290, "core_mm": 4, "depth_mm": 8, "strength_n_mm2": 500}, 0.4 * (0.082 * 290 * 4**-0.3) * 8 * 4, 1e-9, "hand", "EN 1995-1-1 (8.9) written out, thin plate, embedment governs"),
    c("wood_screw_lateral", {"density_kg_m3": 290, "core_mm": 4, "depth_mm": 60, "strength_n_mm2": 500}, 1.15 * math.sqrt(2 * 0.3 * 500 * 4**2.6 * 0.082 * 290 * 4**-0.3 * 4), 1e-9, "hand", "EN 1995-1-1 (8.9) written out, yielding governs"),
    c("thread_in_member", {"length_mm": 50, "foot_mm": 5, "above_mm": 12, "member_mm": 38}, 33, 1e-9, "hand", "50 − 5 − 12"),
    c("thread_in_member", {"length_mm": 15, "foot_mm": 5, "above_mm": 12, "member_mm": 38}, 0, 1e-9, "hand", "too short: nothing in the member"),
    # bolts
    c("thread_stress_area", {"diameter_mm": 5, "pitch_mm": 0.8, "form": 0.9382}, 14.2, 0.003, "published", "ISO 898-1 table: M5 14.2 mm²"),
    c("thread_stress_area", {"diameter_mm": 6, "pitch_mm": 1.0, "form": 0.9382}, 20.1, 0.003, "published", "ISO 898-1 table: M6 20.1 mm²"),
    c("thread_stress_area", {"diameter_mm": 8, "pitch_mm": 1.25, "form": 0.9382}, 36.6, 0.003, "published", "ISO 898-1 table: M8 36.6 mm²"),
    c("thread_stress_area", {"diameter_mm": 10, "pitch_mm": 1.5, "form": 0.9382}, 58.0, 0.003, "published", "ISO 898-1 table: M10 58.0 mm²"),
    c("thread_stress_area", {"diameter_mm": 6.35, "pitch_mm": 1.27, "form": 0.9743}, 0.0318 * INCH**2, 0.003, "published", "ASME B1.1: 1/4-20 0.0318 in²"),
    c("thread_stress_area", {"diameter_mm": 9.525, "pitch_mm": 25.4 / 16, "form": 0.9743}, 0.0775 * INCH**2, 0.003, "published", "ASME B1.1: 3/8-16 0.0775 in²"),
    c("bolt_tension", {"strength_n_mm2": 800, "area_mm2": 20.1}, 16_100, 0.003, "published", "ISO 898-1: M6 class 8.8 16.1 kN"),
    c("bolt_tension", {"strength_n_mm2": 800, "area_mm2": 36.6}, 29_200, 0.003, "published", "ISO 898-1: M8 class 8.8 29.2 kN"),
    c("bolt_shear", {"strength_n_mm2": 800, "area_mm2": 36.6}, 0.6 * 800 * 36.6, 1e-9, "hand", "EN 1993-1-8 Table 3.4, α_v = 0.6"),
    c("tightening_torque", {"nut_factor": 0.20, "diameter_mm": 8, "preload_n": 0.75 * 21_200}, 25.5, 0.003, "library", "M8 8.8 at 75 % proof, dry: 25.5 N·m"),
    c("hole_bearing", {"diameter_mm": 6, "thickness_mm": 1.5, "strength_n_mm2": 270}, 2.4 * 6 * 1.5 * 270, 1e-9, "hand", "AISC 360 J3-6a written out"),
    c("washer_punching", {"washer_mm": 40, "thickness_mm": 9.5, "shear_strength_n_mm2": 1.3}, math.pi * 40 * 9.5 * 1.3, 1e-9, "hand", "edge area times strength"),
    # tape and bracket
    c("tape_strength", {"stress_n_mm2": 12 * PSI, "length_mm": 100, "width_mm": 50, "bonded": 1}, 12 * (100 / INCH) * (50 / INCH) * LBF, 0.001, "published", "12 psi over the pad in inch units (makers' guidance)"),
    c("tape_edge_strength", {"stress_n_mm2": 0.163, "length_mm": 100, "width_mm": 50, "bonded": 1, "eccentricity_mm": 30}, 0.163 * 5000 / 4.6, 1e-9, "hand", "1 + 6·30/50 = 4.6"),
    c("bond_share", {"dwell_h": 1 / 3}, 0.5, 1e-9, "published", "makers' guidance: half after 20 min"),
    c("bond_share", {"dwell_h": 24}, 0.9, 1e-9, "published", "makers' guidance: 90 % after 24 h"),
    c("bond_share", {"dwell_h": 72}, 1.0, 1e-9, "published", "makers' guidance: all after 72 h"),
    c("tape_stiffness", {"modulus_n_mm2": 0.6, "length_mm": 100, "width_mm": 50, "thickness_mm": 1.6}, 0.6 * 5000 / 1.6, 1e-9, "hand", "E·A/t"),
    c("prying", {"lever_mm": 25, "toe_mm": 20}, 2.25, 1e-9, "hand", "(25 + 20)/20"),
    c("row_share", {"lever_mm": 15, "toe_mm": 30, "count": 2, "pitch_mm": 17}, 45 * 38.5 / (38.5**2 + 21.5**2), 1e-12, "hand", "holes 38.5 and 21.5 mm from the toe: 0.891, not 0.75"),
    c("row_share", {"lever_mm": 15, "toe_mm": 30, "count": 3, "pitch_mm": 17}, 45 * 47 / (47**2 + 30**2 + 13**2), 1e-12, "hand", "holes 47, 30 and 13 mm from the toe: 0.645, not 0.50"),
    c("row_share", {"lever_mm": 20, "toe_mm": 20, "count": 2, "pitch_mm": 41}, 40 * 40.5 / 40.5**2, 1e-12, "hand", "holes 20.5 mm off the middle: one beyond the toe, the other at the very end of the base"),
    c("row_share", {"lever_mm": 20, "toe_mm": 40, "count": 4, "pitch_mm": 20}, 60 * 70 / (70**2 + 50**2 + 30**2 + 10**2), 1e-12, "hand", "0.50, not 0.375"),
    c("row_share", {"lever_mm": 20, "toe_mm": 20, "count": 4, "pitch_mm": 20}, 40 * 50 / (50**2 + 30**2 + 10**2), 1e-12, "hand", "the fourth stands 10 mm beyond the toe"),
    c("row_share", {"lever_mm": 20, "toe_mm": 40, "count": 3, "pitch_mm": 20}, 60 * 60 / (60**2 + 40**2 + 20**2), 1e-12, "hand", "holes 60, 40 and 20 mm from the toe"),
    c("row_share", {"lever_mm": 20, "toe_mm": 20, "count": 1, "pitch_mm": 20}, 2.0, 1e-12, "hand", "one hole: (a + b)/b"),
    c("even_share", {"factor": 2.25, "count": 3}, 0.75, 1e-12, "hand", "2.25/3"),
    c("by_worst_fastener", {"strength_n": 900, "share": 2.25}, 400, 1e-9, "hand", "900/2.25"),
    c("bracket_bending", {"yield_n_mm2": 170, "width_mm": 60, "thickness_mm": 4, "lever_mm": 20}, 170 * (60 * 4**2 / 4) / 20, 1e-9, "hand", "f_y · plastic modulus / lever"),
    c("in_series", {"first_n_mm": 300, "second_n_mm": 600}, 200, 1e-9, "hand", "1/300 + 1/600 = 1/200"),
    # members
    c("member_position", {"first_mm": 312, "pitch_mm": 655, "index": 6}, 4242, 1e-9, "hand", "312 + 6·655"),
    c("member_position_beyond", {"first_mm": 312, "pitch_mm": 655, "index": 6, "other_mm": 400, "other_index": 2}, 5042, 1e-9, "hand", "312 + 6·655 + 2·400"),
    c("own_share", {"build_mm": 3, "own_mm": 4}, 0.36, 1e-9, "hand", "9/(9 + 16)"),
    c("pulled_position", {"line_mm": 1000, "own_mm": 1010, "share": 0.3}, 1003, 1e-9, "hand", "1000 + 0.3·10"),
    c("member_uncertainty", {"line_sigma_mm": 6, "build_mm": 4, "share": 0.5}, math.sqrt(9 + 8), 1e-9, "hand", "√(0.25·36 + 0.5·16)"),
    # shape of the roof
    c("radius_from_sagitta", {"chord_mm": 2000, "sagitta_mm": 127.0167}, 4000, 1e-5, "hand", "R − √(R² − 1000²) = 127.0167 for R = 4000"),
    c("sagitta", {"width_mm": 2000, "radius_mm": 4000}, 127.0167, 1e-5, "hand", "4000 − √(16·10⁶ − 10⁶)"),
    c("sagitta", {"width_mm": 0.4 * 1500, "radius_mm": 1500}, 600**2 / (8 * 1500), 0.011, "library", "CHECKS: w²/(8R) is 1 % low at w = 0.4 R"),
    c("radius_of_curvature", {"slope": 0, "bend_per_mm": 1 / 4000}, 4000, 1e-9, "hand", "circle at its top"),
    c("radius_of_curvature", {"slope": 0.75, "bend_per_mm": (1 + 0.75**2) ** 1.5 / 2500}, 2500, 1e-9, "hand", "circle of 2500 away from its top"),
    c("true_slope", {"gauge_deg": 6.5, "zero_deg": 1.2, "lean_deg": -0.3}, 5.6, 1e-9, "hand", "6.5 − 1.2 + 0.3"),
    c("residual_lean", {"line_mm": 640, "mark_mm": 600, "radius_mm": 3000}, math.degrees(40 / 3000), 1e-9, "hand", "arc over radius"),
    c("wedge_thickness", {"base_mm": 50, "lean_deg": 45, "bar_mm": 0, "radius_mm": 1e6}, 50, 1e-3, "hand", "tan 45° = 1, an edge, a flat roof"),
    c("wedge_thickness", {"base_mm": 100, "lean_deg": -2, "bar_mm": 20, "radius_mm": 1e6}, 80 * math.tan(math.radians(2)), 1e-3, "hand", "(b − w)·tan δ on a flat roof: 2.79 mm"),
    c("wedge_thickness", {"base_mm": 100, "lean_deg": 1, "bar_mm": 20, "radius_mm": 2500}, (30 + 2500 * math.tan(math.radians(1))) * math.tan(math.radians(1)) + (30**2 - (2500 * math.tan(math.radians(1))) ** 2) / 5000, 1e-9, "hand", "line touching a circle and the bar's inner edge: 1.08 mm"),
    c("lid_lean", {"length_mm": 400, "angle_deg": 120}, 200, 1e-9, "hand", "−400·cos 120°"),
    c("lid_lean", {"length_mm": 400, "angle_deg": 80}, 0, 1e-9, "hand", "not past upright: leans over nothing"),
    c("lid_tip_height", {"hinge_mm": 100, "length_mm": 400, "angle_deg": 90}, 500, 1e-9, "hand", "upright"),
    c("lid_height_beyond", {"hinge_mm": 60, "distance_mm": 100, "angle_deg": 135}, 160, 1e-9, "hand", "45° over: as high as far"),
    c("skew_from_diagonals", {"first_mm": math.hypot(4000, 2020), "second_mm": math.hypot(4000, 1980), "width_mm": 2000}, 20, 1e-9, "hand", "rear moved 20 mm to starboard"),
    c("panel_sag", {"span_mm": 1000}, 5, 1e-9, "hand", "1000/200"),
    c("clear_height", {"panel_mm": 40, "roof_mm": 12, "sigma_mm": 2, "sag_mm": 5}, 40 - 12 - 3.92 - 5, 1e-9, "hand", "40 − 12 − 1.96·2 − 5"),
    c("removal_labour", {"count": 6, "each_min": 30}, 180, 1e-9, "hand", "six panels, three person-hours (common practice)"),
    # sun
    c("incidence_cosine", {"zenith_deg": 50.11162, "azimuth_deg": 194.34024, "tilt_deg": 30, "facing_deg": 170}, math.cos(math.radians(25.18700)), 1e-6, "published", "Reda and Andreas 2008, worked example: incidence 25.18700° on slope 30°, rotation −10°"),
    c("extraterrestrial_light", {"day": 1}, 1410.9, 1e-3, "library", "pvlib.irradiance.get_extra_radiation(1, method='asce'), 1366 W/m²"),
    c("light_about_the_sun", {"diffuse_w_m2": 100, "anisotropy": 0.6, "incidence": 0.9, "height_sine": 0.45}, 120.0, 1e-12, "hand", "100 · 0.6 · 0.9/0.45"),
    c("ground_light", {"albedo": 0.2, "level_w_m2": 500, "tilt_deg": 60}, 25.0, 1e-9, "hand", "0.2 · 500 · (1 − 0.5)/2"),
    c("faced_sky", {"tilt_deg": 50}, 0.8213938048432696, 1e-12, "library", "pvlib.irradiance.isotropic(50, 1)"),
    c("clouded_light", {"clear_w_m2": 800, "cover": 1}, 200, 1e-9, "published", "Kasten and Czeplak 1980: a quarter is left under full cover"),
    c("cell_temperature", {"air_deg_c": 20, "light_w_m2": 800, "noct_deg_c": 45, "gap_rise_k": 6, "efficiency": 0.2, "wind_m_s": 3}, 39.89365603226989, 1e-12, "library", "pvlib.temperature.noct_sam(800, 20, 3, 45, 0.2, mount_standoff=2)"),
    c("panel_power", {"rated_w": 400, "light_w_m2": 500, "per_k": -0.4, "cell_deg_c": 50}, 180, 1e-9, "hand", "400 · 0.5 · (1 − 0.004 · 25)"),
    c("bypassed_light", {"groups": 3, "working": 2, "darkest_w_m2": 900}, 600, 1e-9, "hand", "2 · 900 / 3"),
    # skin between members
    c("plate_stiffness", {"modulus_n_mm2": 205_000, "thickness_mm": 1.519, "poisson": 0.3}, 205_000 * 1.519**3 / (12 * 0.91), 1e-9, "hand", "E t³/(12(1 − ν²)) written out"),
    c("skin_spring", {"stiffness_n_mm": 1000, "bay_mm": 600, "at_mm": 300}, 1000 / (0.01695 * 600**2), 2e-3, "published", "Timoshenko, Table 23: simply supported, b/a = ∞: w = 0.01695 P a²/D"),
    c("skin_frequency", {"stiffness_n_mm": 1e6, "bay_mm": 1000, "mass_kg_m2": 10}, math.pi / 2 * 10, 1e-9, "published", "Leissa SP-160: ω a² √(μ/D) = π² for the strip"),
]  # fmt: skip
