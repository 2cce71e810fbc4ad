"""Replay a drawing to SVG: true scale (1 user unit = 1 mm on the roof), or reduced for a sheet."""

from __future__ import annotations

from xml.sax.saxutils import escape

from fahrtwind.files.drawing import LAYERS, Box, Circle, Drawing, Layer, Line, Primitive, Ring, Text

FONT = "Barlow Condensed, Barlow Sign, sans-serif"
STYLE: dict[Layer, tuple[str, float, str]] = {
    "ROOF": ("#23282b", 1.6, ""),
    "MEMBERS": ("#1f5f96", 1.0, "6 3"),
    "OBSTACLES": ("#23282b", 1.0, ""),
    "LIDS": ("#23282b", 0.7, "2 2"),
    "PANELS": ("#23282b", 1.0, ""),
    "HOLES": ("#23282b", 0.8, ""),
    "PADS": ("#23282b", 0.8, ""),
    "POINTS": ("#1f5f96", 0.9, ""),
    "SCARS": ("#a82c06", 0.9, ""),
    "KEEP_OUT": ("#a82c06", 0.8, "2 2"),
    "LINES": ("#1f5f96", 1.2, ""),
    "NUMBERS": ("#23282b", 0.0, ""),
    "DATUM": ("#1f5f96", 0.7, "12 3 2 3"),
    "RULER": ("#1f5f96", 0.7, ""),
    "DIMENSIONS": ("#1f5f96", 0.5, ""),
    "TITLE": ("#23282b", 0.0, ""),
}
LETTERING: tuple[Layer, ...] = ("NUMBERS", "TITLE")


def to_svg(drawing: Drawing, scale: float = 1.0) -> str:
    """``scale`` is the denominator: 1 is true scale, 50 prints 1:50."""
    e, s = drawing.extent, drawing.stroke_mm
    layers: dict[Layer, list[str]] = {}
    for item in drawing.items:
        layers.setdefault(item.layer, []).append(_element(item))
    groups = []
    for layer in sorted(layers, key=lambda name: (name in LETTERING, LAYERS.index(name))):
        elements = layers[layer]
        colour, weight, dash = STYLE[layer]
        dashes = (
            f' stroke-dasharray="{" ".join(f"{float(d) * s * 2:g}" for d in dash.split())}"' if dash else ""
        )
        paint = (
            f'fill="{colour}" stroke="none"'
            if layer in LETTERING
            else f'fill="none" stroke="{colour}" stroke-width="{weight * s:g}"{dashes}'
        )
        if layer == "NUMBERS":  # cleared of the lines behind; not every reader of SVG can stroke under a fill
            halo = f'fill="#fff" stroke="#fff" stroke-width="{4 * s:g}" stroke-linejoin="round"'
            groups.append(f'<g id="CLEARING" aria-hidden="true" {halo}>{"".join(elements)}</g>')
        groups.append(f'<g id="{layer}" {paint}>{"".join(elements)}</g>')
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{e.length_mm / scale:.3f}mm" '
        f'height="{e.width_mm / scale:.3f}mm" '
        f'viewBox="{e.x_mm:.3f} {e.y_mm:.3f} {e.length_mm:.3f} {e.width_mm:.3f}">{"".join(groups)}</svg>\n'
    )


def _element(item: Primitive) -> str:
    match item:
        case Line():
            return f'<line x1="{item.x1:.2f}" y1="{item.y1:.2f}" x2="{item.x2:.2f}" y2="{item.y2:.2f}"/>'
        case Box(rect=r):
            return (
                f'<rect x="{r.x_mm:.2f}" y="{r.y_mm:.2f}" width="{r.length_mm:.2f}" '
                f'height="{r.width_mm:.2f}"/>'
            )
        case Ring(points=points):
            return f'<polygon points="{" ".join(f"{v.x_mm:.2f},{v.y_mm:.2f}" for v in points)}"/>'
        case Circle():
            return f'<circle cx="{item.x:.2f}" cy="{item.y:.2f}" r="{item.diameter / 2:.2f}"/>'
        case Text():
            fill = ' fill="#1f5f96" stroke="none"' if item.layer in ("RULER", "DIMENSIONS") else ""
            turned = f' transform="rotate(-90 {item.x:.2f} {item.y:.2f})"' if item.upright else ""
            return (
                f'<text x="{item.x:.2f}" y="{item.y:.2f}" font-family="{FONT}" font-size="{item.height:.1f}" '
                f'text-anchor="{item.anchor}"{fill}{turned}>{escape(item.text)}</text>'
            )
