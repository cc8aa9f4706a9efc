// Tags for locks: who, which lock, since when, whom to call.

#import "style.typ": *

#set document(title: data.title, date: none)
#set page(paper: data.paper, margin: 14mm)
#set text(font: text-face, size: 11pt, fill: ink, lang: data.language.slice(0, 2), hyphenate: false)

#let tag(one) = block(
  width: 100%,
  height: 118mm,
  breakable: false,
  stroke: (paint: ink, thickness: 1.2pt),
  radius: 4mm,
  inset: 6mm,
  {
    place(top + center, circle(radius: 3mm, stroke: 1pt + quiet))
    v(9mm)
    align(center, text(size: 17pt, weight: "bold", fill: colours.danger)[Do not switch on])
    align(center)[Somebody is working on what this feeds.]
    v(2mm)
    grid(
      columns: (24mm, 1fr),
      row-gutter: 3mm,
      small[Lock], text(size: 15pt, weight: "bold", mono(one.lock)),
      small[Switches], [#one.source],
      small[Put on by], text(size: 13pt, weight: "bold", one.by),
      small[Since], [#one.since],
      small[Call], text(size: 13pt, if data.phone != "" { data.phone } else { "_________________" }),
      small[Work], [#one.work],
    )
    v(1fr)
    grid(
      columns: (1fr, 20mm),
      small[Only the person named takes this lock off. A lock and a tag prove nothing dead.],
      image(bytes(one.qr), format: "svg", width: 20mm, alt: "QR code to the proof of isolation"),
    )
  },
)

#grid(columns: (1fr, 1fr), gutter: 6mm, ..data.tags.map(tag))
