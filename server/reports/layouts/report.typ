// What was found of a circuit, a site or a visit: for the owner, the next electrician, the inspector.

#import "style.typ": *

#let found = data.content
#let signed = data.signed

#set document(title: data.title, author: found.by, date: none)
#set page(
  paper: data.paper,
  margin: (x: 16mm, top: 20mm, bottom: 20mm),
  header: context if counter(page).get().first() > 1 [
    #small[#data.title #h(1fr) #data.signed_at]
    #v(-6pt)
    #line(length: 100%, stroke: 0.5pt + rule)
  ],
  footer: context [
    #line(length: 100%, stroke: 0.5pt + rule)
    #v(-6pt)
    #small[
      #if signed != none [Signed, number #signed.number, SHA-256 #mono(signed.link_sha256.slice(0, 16))…] else [Draft, not signed]
      #h(1fr) Page #counter(page).display() of #counter(page).final().first()
    ]
  ],
)
#set text(font: text-face, size: 10pt, fill: ink, lang: data.language.slice(0, 2), hyphenate: false)
#set par(leading: 0.6em, spacing: 0.8em)
#set table(stroke: (x, y) => (bottom: 0.5pt + rule), inset: (x: 4pt, y: 4pt), align: left + top)
#show heading.where(level: 1): set text(size: 20pt)
#show heading.where(level: 2): it => block(above: 1.6em, below: 0.8em, sticky: true, text(size: 14pt, it.body))
#show heading.where(level: 3): it => block(above: 1.2em, below: 0.6em, sticky: true, text(size: 11pt, it.body))
#show table.cell.where(y: 0): set text(size: 8.5pt, fill: quiet)

#let list-of(items) = list(marker: text(fill: copper)[–], spacing: 0.6em, ..items.map(one => [#one]))

= #data.title
#small[#data.subtitle]

#if found.at("visit", default: none) != none [
  #found.visit.why
  #if found.visit.people.len() > 0 [ #linebreak() #small[By #found.visit.people.join(", ")#if data.visited != "" [, #data.visited]] ]
]

#block(width: 100%, stroke: (left: 2.5pt + copper), inset: (left: 10pt, y: 4pt))[
  #data.caution
]

== What was found
#table(
  columns: (auto, 1fr, auto),
  table.header([Verdict], [Circuit], [Points, dead tests]),
  ..found.circuits.map(one => (
    verdict(one.verdict),
    [*#one.name* #linebreak() #small[#one.board]],
    [#one.points.len(), #one.dead_tests.len()],
  )).flatten(),
)
#small[The verdict of a circuit is that of its worst point. Readings by points: #data.readings in all.]

== What has to be done next
#let whens = found.next.map(one => one.by_when).dedup()
#for when in whens [
  *#when* #list-of(found.next.filter(one => one.by_when == when).map(one => one.what))
]
#if whens.len() == 0 [ Nothing that was tested asks for anything. ]

#if found.at("visit", default: none) != none and found.visit.open.len() > 0 [
  == Left open
  #list-of(found.visit.open)
]

#if found.remarks != "" [
  == Remarks
  #found.remarks
]

// The run of a circuit as a wire from its board through its points.
#let run-of(circuit) = {
  let last = circuit.points.len() - 1
  let point(number, one) = box(width: 26mm, height: 15mm, {
    place(dy: 4.5mm, line(length: if number == last { 13mm } else { 26mm }, stroke: 1pt + quiet))
    place(dx: 10mm, dy: 1.5mm, box(fill: white, shape(one.verdict, size: 6mm)))
    place(dy: 9mm, box(width: 25mm, align(center, text(size: 8pt, one.name))))
  })
  let board = box(width: 14mm, height: 15mm, {
    place(dy: 1mm, rect(width: 9mm, height: 7mm, stroke: 1pt + ink))
    place(dx: 9mm, dy: 4.5mm, line(length: 5mm, stroke: 1pt + quiet))
    place(dy: 9mm, box(width: 14mm, text(size: 8pt, fill: quiet, data.board)))
  })
  set par(leading: 0.35em)
  block(above: 0.8em, below: 0.6em, board + circuit.points.enumerate().map(((n, one)) => point(n, one)).join())
}

#let beside(name, answer) = [#name: #data.states.at(answer.state)]

#let readings-of(point) = if point.readings.len() > 0 {
  table(
    columns: (1.35fr, 0.9fr, 1.45fr, 1.15fr, 1.75fr),
    table.header([Reading], [Shown], [How], [When], [By, with]),
    ..point.readings.map(one => (
      one.where,
      mono(one.seen),
      [#one.how #if one.why != "" { text(fill: colours.hazard)[#if one.how != "" [#linebreak()]Does not count: #one.why] }],
      small(one.at),
      small[#one.by, #one.tester#if one.source != "typed" [, #one.source]],
    )).flatten(),
  )
}

#let photos-of(it) = {
  let shown = it.photos.filter(photo => photo.id in data.photos)
  if shown.len() > 0 {
    grid(columns: 3, gutter: 4mm, ..shown.map(photo => [
      #image(bytes(data.photos.at(photo.id)), format: "svg", width: 54mm, alt: if photo.on != "" { photo.on } else { "Photo" })
      #small[#photo.on #photo.taken_at]
    ]))
  }
}

#for circuit in found.circuits [
  == #circuit.name
  #verdict(circuit.verdict)
  #h(1em) #small[#circuit.board, #circuit.supply]

  #circuit.schedule
  #if circuit.points.len() > 0 { run-of(circuit) }

  #for point in circuit.points [
    === #point.name
    #verdict(point.verdict, size: 9pt) #h(1em) #beside("Insulation", point.insulation) #h(1em) #beside("Protective device", point.protection)

    #point.summary
    #if point.could_be.len() > 0 [
      Still possible: #point.could_be.map(one => one.title).join("; ").
    ]
    #if point.decides != "" [ Next reading: #point.decides. ]
    #readings-of(point)
    #photos-of(point)
  ]

  #photos-of(circuit)

  #if circuit.dead_tests.len() > 0 [
    === Dead tests
    #table(
      columns: (2fr, 0.9fr, 0.7fr, 1.2fr, 1.2fr),
      table.header([Test], [Shown], [Result], [Limit], [When, by, with]),
      ..circuit.dead_tests.map(one => (
        [#one.title #linebreak() #small(one.text) #if one.doubt != "" { text(fill: colours.hazard)[#linebreak()Does not count: #one.doubt] }],
        mono(one.shown),
        data.results.at(one.result),
        [#one.limit #linebreak() #small(one.source)],
        [#one.at, #one.by #linebreak() #small(one.tester)],
      )).flatten(),
    )
  ]
  #for proof in circuit.proofs [
    === Isolation
    #proof.name: #data.proofs.at(proof.state, default: proof.state)#if proof.at("proved_at", default: none) != none [, proved dead #proof.proved_at]#if proof.stated_by != "" [, confirmed by #proof.stated_by].
    #if proof.sources.len() > 0 [ Sources: #proof.sources.join("; "). ]
    #if proof.locks.len() > 0 [ Locks: #proof.locks.join("; "). ]
  ]
]

#if found.not_tested.len() > 0 [
  == Not tested
  #table(
    columns: (1.4fr, 1fr),
    table.header([What], [Why]),
    ..found.not_tested.map(one => ([#one.what], [#if one.why != "" { one.why } else { small[no reason given yet] }])).flatten(),
  )
]

#if found.testers.len() > 0 [
  == Measured with
  #table(
    columns: (1.3fr, 1.2fr, 1.2fr, 1.4fr),
    table.header([Tester], [Kind], [Calibration due], [Checked that day]),
    ..found.testers.map(one => (
      [*#one.label* #linebreak() #small(one.rating)],
      [#one.kind],
      [#one.at("calibration_due", default: "not recorded")],
      [#one.at("checked_at", default: "no check recorded") #if one.attention.len() > 0 { small[#linebreak() #one.attention.join("; ")] }],
    )).flatten(),
  )
]

#if found.limits.len() > 0 [
  == Held against
  #table(
    columns: (1.3fr, 1fr, 2fr),
    table.header([Limit], [Figure], [Source]),
    ..found.limits.map(one => ([#one.title], [#one.says], [#small(one.source)])).flatten(),
  )
]

#block(breakable: false, above: 2em)[
  == Signed
  #if signed != none [
    #grid(
      columns: (1fr, 30mm),
      gutter: 10mm,
      [
        *#found.typed_name* #linebreak()
        #data.signed_at #linebreak()
        Number #signed.number of this crew's sign-offs. #linebreak()
        #text(size: 8pt, mono(signed.link_sha256)) #linebreak()
        #small[SHA-256 of what was signed and of every sign-off before it. A changed reading, verdict or date changes it. Made by core #(found.core). `evenprobe verify` checks the saved file.]
      ],
      image(bytes(data.qr), format: "svg", width: 30mm, alt: "QR code of the SHA-256 beside it"),
    )
  ] else [
    Not signed. This is a draft of #data.signed_at by #found.by.
    #v(14mm)
    #line(length: 70mm, stroke: 0.5pt + quiet)
    #small[Name, date]
  ]
]
