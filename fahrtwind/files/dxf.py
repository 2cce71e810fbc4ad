"""Replay a drawing to DXF at true scale, millimetres, one layer for each kind of line. y is mirrored: DXF points up."""

from __future__ import annotations

import io

from fahrtwind.files.drawing import LAYERS, Box, Circle, Drawing, Line, Ring, Text

COLOURS = {"MEMBERS": 5, "DATUM": 5, "RULER": 5, "LIDS": 8, "POINTS": 5, "LINES": 5, "SCARS": 1, "KEEP_OUT": 1}
DASHED = ("MEMBERS", "LIDS", "KEEP_OUT")
ALIGN = {"start": "LEFT", "middle": "CENTER", "end": "RIGHT"}


def to_dxf(drawing: Drawing) -> str:
    import ezdxf.filemanagement  # loaded late: it takes over a second and only this file needs it
    from ezdxf import units
    from ezdxf.enums import TextEntityAlignment

    document = ezdxf.filemanagement.new("R2010", setup=True, units=units.MM)
    space = document.modelspace()
    for layer in LAYERS:
        document.layers.add(layer, color=COLOURS.get(layer, 7), linetype="DASHED" if layer in DASHED else "CONTINUOUS")
    for item in drawing.items:
        at = {"layer": item.layer}
        match item:
            case Line():
                space.add_line((item.x1, -item.y1), (item.x2, -item.y2), dxfattribs=at)
            case Box(rect=r):
                corners = [(r.x_mm, r.y_mm), (r.x_end_mm, r.y_mm), (r.x_end_mm, r.y_end_mm), (r.x_mm, r.y_end_mm)]
                space.add_lwpolyline([(x, -y) for x, y in corners], close=True, dxfattribs=at)
            case Ring():
                space.add_lwpolyline([(v.x_mm, -v.y_mm) for v in item.points], close=True, dxfattribs=at)
            case Circle():
                space.add_circle((item.x, -item.y), item.diameter / 2, dxfattribs=at)
            case Text():
                text = space.add_text(item.text, height=item.height, dxfattribs=at)
                text.set_placement((item.x, -item.y), align=TextEntityAlignment[ALIGN[item.anchor]])
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()
