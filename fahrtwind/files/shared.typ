// What all sheets of the workshop have in common.
#let ink = rgb("#23282b")
#let chalk = rgb("#1f5f96")
#let sign(size, body) = text(font: "Barlow Sign", weight: 600, size: size, fill: ink, body)
#let label(body) = text(font: "Barlow Sign", weight: 500, size: 8.5pt, fill: chalk, body)
#let grid-table(columns, head, rows) = table(
  columns: columns, stroke: none, inset: (x: 4pt, y: 2.6pt), align: horizon,
  table.header(..head.map(label), table.hline(stroke: 0.6pt + ink)),
  ..rows.flatten().map(cell => [#cell]),
  ..range(1, rows.len() + 1).map(i => table.hline(y: i + 1, stroke: 0.25pt + luma(150))),
)
