// What whoever drives, insures or buys it has to know.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, margin: 14mm)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 9pt, fill: ink, lang: "en")
#let part(title, columns, head, rows) = if rows.len() > 0 [
  #v(2mm)
  #sign(12pt, title)
  #grid-table(columns, head, rows)
]
#sign(18pt, sheet.title) #h(1fr) #sheet.stamp
#v(1mm)
#sign(15pt, sheet.verdict)
#for line in sheet.why [ #line #linebreak() ]
#part("On the road", (auto, 1fr), ("", ""), sheet.speeds)
#part("On the roof", (1fr, 1fr, auto, auto), ("what", "model", "power", "mass"), sheet.roof)
#image(bytes(sheet.drawing), format: "svg", width: 100%)
#part("Wiring", (1fr, 1fr, auto, auto), ("controller", "plugged", "fuses", ""), sheet.wiring)
#v(2mm)
#sign(12pt, "Stow")
#list(..sheet.stow)
#part("Look at", (1fr, auto, 1fr), ("what", "by", "why"), sheet.due)
#v(2mm)
#text(weight: 700)[#sheet.caution]
#pagebreak()
#sign(15pt, "For the insurer and the next owner")
#part("What was looked at", (auto, auto, auto, 1fr), ("day", "found", "where", ""), sheet.looks)
#part("Built beside the plan", (auto, 1fr, auto), ("foot", "where", "pilot hole"), sheet.built)
#part("Decisions", (1fr, 1fr), ("what", "why"), sheet.decisions)
#part("Open or accepted", (auto, 1fr, auto, 1fr), ("", "what", "where", "reason or remedy"), sheet.snags)
#v(3mm)
#sheet.limits
