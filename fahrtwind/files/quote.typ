// What the work costs, for the customer. All text and numbers come in as data; nothing is computed here.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(
  paper: sheet.paper, margin: (x: 20mm, top: 18mm, bottom: 18mm),
  footer: text(size: 7.5pt, fill: ink)[#sheet.caution #h(1fr) #context counter(page).display("1 / 1", both: true)],
)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 10pt, fill: ink, lang: "en")
#sign(24pt, sheet.title) #h(1fr) #sheet.stamp
#v(4pt)
#sheet.vehicle
#v(8pt)
#sign(15pt, "What is done")
#for line in sheet.work [- #line]
#v(6pt)
#sign(15pt, "What it takes")
#grid-table((1fr, auto, auto), ("", "how much", "price"), sheet.lines)
#v(8pt)
#grid-table((1fr, auto), ("", sheet.currency), sheet.sums)
#if sheet.open != "" [
  #v(6pt)
  #text(weight: 600, sheet.open)
]
