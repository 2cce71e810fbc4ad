// A label for each piece, three beside one another.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, margin: (x: 8mm, y: 10mm))
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 7.5pt, fill: ink, lang: "en")
#if sheet.labels.len() == 0 [No piece, no label.]
#grid(columns: (1fr,) * 3, gutter: 2mm,
  ..sheet.labels.map(l => block(width: 100%, height: 30mm, stroke: 0.25pt + luma(150), inset: 2mm, breakable: false,
    grid(columns: (22mm, 1fr), gutter: 2mm, align: horizon,
      image(bytes(l.code), format: "svg", width: 22mm),
      [#sign(14pt, l.id) \ #l.name \ #l.long]))))
