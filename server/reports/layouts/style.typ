// What every printed page shares: the face, the colours, the verdicts' shapes, and the data it is given.

#let data = json(bytes(sys.inputs.data))

#let text-face = ("Atkinson Hyperlegible Next", "DejaVu Sans Mono")
#let figure-face = ("Atkinson Hyperlegible Mono", "DejaVu Sans Mono")

#let ink = rgb("#1F2428")
#let quiet = rgb("#5B636A")
#let rule = rgb("#D9D3C6")
#let copper = rgb("#A34E24")
#let colours = (
  correct: rgb("#0E7A6B"),
  safe: rgb("#0E7A6B"),
  unconfirmed: rgb("#8F6400"),
  defect: rgb("#4B5A6A"),
  hazard: rgb("#77397A"),
  danger: rgb("#BF2F1A"),
  contradictory: ink,
  untested: quiet,
)

// A verdict's shape; the word beside it says the same.
#let shape(kind, size: 11pt) = {
  let colour = colours.at(kind)
  let line = size * 0.13
  let body = if kind == "correct" { circle(radius: size / 2, fill: colour) } else if kind == "safe" {
    circle(radius: size / 2 - line / 2, stroke: size * 0.16 + colour)
  } else if kind == "unconfirmed" {
    box(width: size, height: size, {
      place(circle(radius: size / 2 - line / 2, stroke: line + colour))
      place(dx: size / 2, curve(
        fill: colour,
        curve.move((0pt, 0pt)),
        curve.cubic((size * 0.28, 0pt), (size / 2, size * 0.22), (size / 2, size / 2)),
        curve.cubic((size / 2, size * 0.78), (size * 0.28, size), (0pt, size)),
        curve.close(),
      ))
    })
  } else if kind == "defect" { rect(width: size * 0.86, height: size * 0.86, fill: colour) } else if kind == "hazard" {
    polygon(fill: colour, (size / 2, 0pt), (size, size / 2), (size / 2, size), (0pt, size / 2))
  } else if kind == "danger" { polygon(fill: colour, (size / 2, 0pt), (size, size), (0pt, size)) } else if (
    kind == "contradictory"
  ) {
    box(width: size, height: size, {
      place(dy: size * 0.32, std.line(length: size, stroke: line + colour))
      place(dy: size * 0.68, std.line(length: size, stroke: line + colour))
      place(std.line(start: (size * 0.75, 0pt), end: (size * 0.25, size), stroke: line + colour))
    })
  } else {
    circle(radius: size / 2 - line / 2, stroke: (paint: colour, thickness: line, dash: "densely-dotted"))
  }
  box(baseline: size * 0.12, width: size, height: size, align(center + horizon, body))
}

#let verdict(kind, size: 11pt) = [#shape(kind, size: size)#h(0.45em)#text(fill: colours.at(kind), weight: "bold", data.words.at(kind))]

#let mono(body) = text(font: figure-face, tracking: -0.03em, body)
#let small(body) = text(size: 8.5pt, fill: quiet, body)
