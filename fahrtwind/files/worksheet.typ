// The work sheet for the roof. All text and numbers come in as data; nothing is computed here.
#let sheet = json(bytes(sys.inputs.sheet))
#let ink = rgb("#23282b")
#let chalk = rgb("#1f5f96")
#let signal = rgb("#c23a12")
#set document(title: sheet.title)
#set page(
  paper: sheet.paper, flipped: true, margin: (x: 12mm, top: 14mm, bottom: 13mm),
  header: text(size: 8pt, fill: ink)[#sheet.title #h(1fr) #sheet.vehicle],
  footer: text(size: 7.5pt, fill: ink)[#sheet.caution #h(1fr) #context counter(page).display("1 / 1", both: true)],
)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 8.5pt, fill: ink, lang: "en")
#show heading: it => block(above: 10pt, below: 5pt, text(font: "Barlow Sign", weight: 600, size: 15pt, it.body))
#let label(body) = text(font: "Barlow Sign", weight: 500, size: 8.5pt, fill: chalk, body)
#let grid-table(columns, head, rows) = table(
  columns: columns, stroke: none, inset: (x: 4pt, y: 2.6pt), align: horizon,
  table.header(..head.map(label), table.hline(stroke: 0.6pt + ink)),
  ..rows.flatten().map(cell => [#cell]),
  ..range(1, rows.len() + 1).map(i => table.hline(y: i + 1, stroke: 0.25pt + luma(150))),
)

= Drill map 1 : #sheet.scale
#text(font: "Barlow Sign", weight: 600, size: 13pt, fill: if sheet.refused { signal } else { ink }, sheet.verdict)
#v(2pt)
#grid(columns: (1fr,) * sheet.figures.len(), gutter: 6pt,
  ..sheet.figures.map(f => [#label(f.name) \ #text(font: "Barlow Sign", weight: 600, size: 17pt,
    fill: if f.bad { signal } else { ink }, f.value)]))
#v(4pt)
#image(bytes(sheet.drawing), format: "svg", width: sheet.drawing_width_mm * 1mm)
#text(size: 8pt)[#sheet.legend]
#if sheet.stops.len() > 0 [
  #v(3pt)
  #block(stroke: (left: 2.5pt + signal), inset: (left: 7pt, y: 2pt))[
    #text(font: "Barlow Sign", weight: 600, fill: signal, size: 12pt)[STOP: do not drill until these are cleared]
    #for stop in sheet.stops.slice(0, calc.min(7, sheet.stops.len())) [\ #stop.where: #stop.why #text(weight: 600, stop.remedy)]
    #if sheet.stops.len() > 7 [\ and #(sheet.stops.len() - 7) more in the list of snags.]
  ]
]

#pagebreak()
= Holes and pads, by number
#columns(2, gutter: 10mm)[
  #grid-table((auto, auto, auto, auto, auto, auto, auto, 1fr),
    ("no.", "along mm", "inch", "across mm", "inch", "drill mm", "stop mm", "into, foot"),
    sheet.marks)
]

#pagebreak()
#if sheet.decision != "" [
  = Layout
  #sheet.decision
]
= Marks to set each panel by
#grid-table((1fr, auto, auto, auto, auto, auto, auto),
  ("panel", "front, along", "rear, along", "port side, across", "starboard side, across", "both diagonals", "stand-off"),
  sheet.dry_fit)
#text(size: 8pt)[Lay the panels, or full-size templates, on these marks first. Move front and rear in turn until both offsets agree, then
compare the diagonals. Score the feet with a knife outside of what will be abraded: marker lines are wiped away.]
= Materials
#grid-table((1fr, auto, auto, auto, 1fr), ("item", "needed", "spare", "unit", "note"), sheet.materials)
= Steps
#grid-table((auto, 62mm, 1fr, 74mm, 12mm), ("", "step", "how", "check", "done"), sheet.steps)
#v(6pt)
#text(size: 8.5pt)[#sheet.safety]
