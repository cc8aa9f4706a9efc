// What each device of a board feeds: one page, to fit inside its door.

#import "style.typ": *

#let rows = data.circuits.len() + data.behind.len()
#let size = if rows > 34 { 7.5pt } else if rows > 22 { 9pt } else { 10.5pt }

#set document(title: data.title, author: data.by, date: none)
#set page(paper: data.paper, margin: 14mm)
#set text(font: text-face, size: size, fill: ink, lang: data.language.slice(0, 2), hyphenate: false)
#set table(stroke: (x, y) => (bottom: 0.5pt + rule), inset: (x: 4pt, y: size * 0.4), align: left + horizon)
#show table.cell.where(y: 0): set text(size: size * 0.85, fill: quiet)

#text(size: 18pt, weight: "bold", data.title)
#linebreak()
#small[#data.subtitle]

#table(
  columns: (auto, 1.5fr, 1.7fr, auto, 2fr),
  table.header([Way], [Feeds], [Device], [Conductor], [Points]),
  ..data.circuits.map(one => (
    mono[#one.number],
    [*#one.name*],
    [#one.device],
    [#one.conductor],
    [#text(size: size * 0.9, one.points.join(", "))],
  )).flatten(),
)

#if data.behind.len() > 0 [
  #v(2mm)
  *Protective outlets, and what is behind them*
  #table(
    columns: (1fr, 2fr),
    table.header([Outlet], [Behind it]),
    ..data.behind.map(one => ([*#one.name*], [#one.points.join(", ")])).flatten(),
  )
]

#v(1fr)
#line(length: 100%, stroke: 0.5pt + rule)
#small[Made on #data.made_on by #data.by. Prove dead before work: a schedule can be wrong.]
