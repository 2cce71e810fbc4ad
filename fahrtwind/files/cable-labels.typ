// Labels of cables: each twice, for both ends, to fold round the cable.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(paper: sheet.paper, margin: (x: 10mm, y: 12mm))
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 7.5pt, fill: ink, lang: "en")
#if sheet.labels.len() == 0 [No cable, no label.]
#grid(columns: (1fr,) * 4, gutter: 2mm,
  ..sheet.labels.map(l => block(width: 100%, height: 17mm, stroke: 0.25pt + luma(150), inset: 2mm, breakable: false,
    [#sign(15pt, l.id) #h(1fr) #l.volts \ #l.way])))
