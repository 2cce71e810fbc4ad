// The wiring diagram on one page, with its runs below.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, flipped: true, margin: 12mm)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 8.5pt, fill: ink, lang: "en")
#sign(16pt, sheet.title) #h(1fr) #sheet.stamp
#v(2mm)
#image(bytes(sheet.diagram), format: "svg", width: 100%)
#v(2mm)
#if sheet.runs.len() > 0 [
  #sign(12pt, "Runs")
  #grid-table((auto, 1fr, auto, auto, auto), ("label", "from and to", "conductor", "needs", "extension"), sheet.runs)
]
#v(2mm)
#sheet.caution
