// One sheet for each kind of piece. All text and numbers come in as data; nothing is computed here.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(
  paper: sheet.paper, flipped: true, margin: (x: 12mm, top: 14mm, bottom: 13mm),
  header: text(size: 8pt, fill: ink)[#sheet.title #h(1fr) #sheet.stamp],
  footer: text(size: 7.5pt, fill: ink)[All dimensions from the marked end, never from hole to hole. Deburr; goggles on.
    #h(1fr) #context counter(page).display("1 / 1", both: true)],
)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 8.5pt, fill: ink, lang: "en")
#if sheet.pieces.len() == 0 [Nothing is cut for this job.]
#for (i, piece) in sheet.pieces.enumerate() [
  #if i > 0 [#pagebreak()]
  #sign(17pt, piece.title) #h(8pt) #piece.ids
  #v(1pt)
  #piece.words #h(1fr) #label([scale #piece.scale])
  #v(4pt)
  #image(bytes(piece.drawing), format: "svg", width: piece.width_mm * 1mm)
  #if piece.bends.len() > 0 [
    #grid-table((auto, auto, auto, auto, auto), ("bend at", "way", "inside radius", "angle", "tool goes to"), piece.bends)
    #v(4pt)
  ]
  #if piece.holes.len() > 0 [
    #grid-table((auto, auto, auto, auto, auto, auto, 1fr),
      ("no.", "from the marked end", "face", "off its middle", "pilot", "drill", "for"), piece.holes)
  ] else [No hole.]
]
