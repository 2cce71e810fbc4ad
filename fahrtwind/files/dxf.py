"""Replay a drawing to DXF at true scale, millimetres, one layer for each kind of line. y is mirrored: DXF
points up.
"""

from __future__ import annotations

import io

from fahrtwind.files.drawing import LAYERS, Box, Circle, Drawing, Layer, Line, Ring, Text

COLOURS: dict[Layer, int] = {
    "ROOF": 7,
    "MEMBERS": 150,
    "OBSTACLES": 32,
    "LIDS": 42,
    "PANELS": 94,
    "HOLES": 1,
    "PADS": 210,
    "POINTS": 132,
    "SCARS": 22,
    "KEEP_OUT": 20,
    "LINES": 190,
    "NUMBERS": 8,
    "DATUM": 142,
    "RULER": 160,
    "DIMENSIONS": 124,
    "TITLE": 62,
}
"""A colour of its own for every layer, of middling lightness: each shows on a dark and on a light ground."""
DASHED = ("MEMBERS", "LIDS", "KEEP_OUT")
CAPITALS = 0.7
"""Height of capitals to the size of the letter: text is measured by its capitals here, by its size
elsewhere.
"""
ALIGN = {"start": "LEFT", "middle": "CENTER", "end": "RIGHT"}


def to_dxf(drawing: Drawing) -> str:
    import ezdxf.filemanagement  # loaded late: it takes over a second and only this file needs it
    from ezdxf import bbox, units, zoom
    from ezdxf.enums import TextEntityAlignment

    document = ezdxf.filemanagement.new("R2010", setup=True, units=units.MM)
    space = document.modelspace()
    for layer in LAYERS:
        document.layers.add(
            layer, color=COLOURS[layer], linetype="DASHED" if layer in DASHED else "CONTINUOUS"
        )
    for item in drawing.items:
        at = {"layer": item.layer}
        match item:
            case Line():
                space.add_line((item.x1, -item.y1), (item.x2, -item.y2), dxfattribs=at)
            case Box(rect=r):
                corners = [
                    (r.x_mm, r.y_mm),
                    (r.x_end_mm, r.y_mm),
                    (r.x_end_mm, r.y_end_mm),
                    (r.x_mm, r.y_end_mm),
                ]
                space.add_lwpolyline([(x, -y) for x, y in corners], close=True, dxfattribs=at)
            case Ring():
                space.add_lwpolyline([(v.x_mm, -v.y_mm) for v in item.points], close=True, dxfattribs=at)
            case Circle():
                space.add_circle((item.x, -item.y), item.diameter / 2, dxfattribs=at)
            case Text():
                text = space.add_text(
                    item.text,
                    height=item.height * CAPITALS,
                    rotation=90.0 if item.upright else 0.0,
                    dxfattribs=at,
                )
                text.set_placement((item.x, -item.y), align=TextEntityAlignment[ALIGN[item.anchor]])
    box, e = bbox.extents(space), drawing.extent
    ends = (box.extmin, box.extmax) if box.has_data else ((e.x_mm, -e.y_end_mm), (e.x_end_mm, -e.y_mm))
    space.reset_extents(*((c[0], c[1], 0.0) for c in ends))
    zoom.extents(space)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()
