// The record of a job: every entry with its number, when, by whom, and the hash over it and the one before.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, margin: 14mm, footer: context align(right)[#counter(page).display()])
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 9pt, fill: ink, lang: "en")
#sign(18pt, sheet.title) #h(1fr) #sheet.stamp
#v(1mm)
#sheet.chain
#if sheet.built.len() > 0 [
  #v(2mm)
  #sign(12pt, "Built beside the plan")
  #grid-table((auto, 1fr, auto), ("foot", "where", "pilot hole"), sheet.built)
]
#v(2mm)
#sign(12pt, "Entries")
#if sheet.entries.len() > 0 [
  #grid-table((auto, auto, auto, 1fr, auto), ("no.", "when, UTC", "who", "what", "hash"), sheet.entries)
] else [ Nothing was written down. ]
#if sheet.pictures.len() > 0 [
  #v(2mm)
  #sign(12pt, "Photographs") #h(2mm) #sheet.left_out
  #v(1mm)
  #grid(
    columns: (1fr, 1fr), column-gutter: 6mm, row-gutter: 4mm,
    ..sheet.pictures.map(((picture, when, words)) => block(breakable: false)[
      #image(bytes(picture), width: 100%)
      #sign(9pt, when) #h(1mm) #words
    ]),
  )
]
#v(3mm)
#sheet.limits
