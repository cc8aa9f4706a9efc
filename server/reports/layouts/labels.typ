// Labels on a sheet, by millimetres: what an outlet is called, what feeds it, and a code to its place in the record.

#import "style.typ": *

#let sheet = data.sheet
#let mm(value) = value * 1mm

#set document(title: data.title, date: none)
#set page(width: mm(sheet.page_width), height: mm(sheet.page_height), margin: 0mm)
#set text(font: text-face, fill: ink, hyphenate: false)
#set par(leading: 0.4em)

#let name-size = calc.min(mm(sheet.height) * 0.2, 13pt)

#let label(one) = box(
  width: mm(sheet.width),
  height: mm(sheet.height),
  inset: 2mm,
  clip: true,
  stroke: if data.outlines { 0.3pt + rule } else { none },
  grid(
    columns: (1fr, mm(sheet.code)),
    column-gutter: 1.5mm,
    align(left + horizon)[
      #text(size: name-size, weight: "bold", one.name) \
      #text(size: name-size * 0.68, one.circuit) \
      #text(size: name-size * 0.6, fill: quiet, one.board)
    ],
    align(right + horizon, if sheet.code > 0 { image(bytes(one.qr), format: "svg", width: mm(sheet.code), alt: "QR code to " + one.name) }),
  ),
)

#let a-page = sheet.columns * sheet.rows
#for start in range(0, data.labels.len(), step: a-page) {
  if start > 0 { pagebreak() }
  for (index, one) in data.labels.slice(start, calc.min(start + a-page, data.labels.len())).enumerate() {
    let column = calc.rem(index, sheet.columns)
    let row = calc.quo(index, sheet.columns)
    place(
      dx: mm(sheet.left + column * (sheet.width + sheet.gap)),
      dy: mm(sheet.top + row * (sheet.height + sheet.gap)),
      label(one),
    )
  }
}
