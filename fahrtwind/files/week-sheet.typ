// The kept plan, day by day.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, margin: 14mm)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 9pt, fill: ink, lang: "en")
#sign(16pt, sheet.title) #h(1fr) #sheet.stamp
#for words in sheet.broken [
  #v(2mm) #text(weight: 700)[#words]
]
#for day in sheet.days [
  #v(2mm)
  #block(breakable: false)[
    #sign(12pt, day.day)
    #grid-table((24mm, 1fr, auto, 28mm, 36mm, auto), ("time", "what", "where", "who", "rests", ""), day.rows)
  ]
]
#v(3mm)
#text(weight: 700)[#sheet.drive]
#v(2mm)
#sheet.caution
