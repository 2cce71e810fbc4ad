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
#v(3mm)
#sheet.limits
