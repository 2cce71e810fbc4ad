// Drilling templates at true scale. Print at 100 %; the bar says whether the printer did.
#import "shared.typ": *
#let sheet = json(bytes(sys.inputs.sheet))
#set document(title: sheet.title)
#set page(
  paper: sheet.paper, flipped: true, margin: (x: 10mm, top: 13mm, bottom: 11mm),
  header: text(size: 8pt, fill: ink)[#sheet.title #h(1fr) #sheet.stamp],
  footer: text(size: 7.5pt, fill: ink)[Print at 100 %. Lay the long lines on the edges of the face, the left line on its
    measure from the marked end; dashed lines lie on those of the next page.
    #h(1fr) #context counter(page).display("1 / 1", both: true)],
)
#set text(font: ("Barlow", "DejaVu Sans Mono"), size: 8.5pt, fill: ink, lang: "en")
#if sheet.pages.len() == 0 [Nothing is drilled for this job.]
#for (i, page) in sheet.pages.enumerate() [
  #if i > 0 [#pagebreak()]
  #sign(12pt, page.words)
  #v(2pt)
  #image(bytes(page.drawing), format: "svg", width: page.width_mm * 1mm)
]
