import { type Icon, IconCopy, IconEqual, IconEqualNot, IconPlus, IconX } from "@tabler/icons-react";
import type { RowsLookedAt } from "../../api/client";
import { sentence } from "../../reading/sentence";
import classes from "./Files.module.css";

type Fate = RowsLookedAt["runs"][number]["fate"];
const WORDS: Record<Fate, { Mark: Icon; title: string; says: string; say: string; after?: string }> = {
  new: { Mark: IconPlus, title: "new", says: "goes in", say: "go in", after: "went in" },
  here: { Mark: IconEqual, title: "here already", says: "is here already", say: "are here already" },
  differs: {
    Mark: IconEqualNot,
    title: "here otherwise",
    says: "is here otherwise, and stays so",
    say: "are here otherwise, and stay so",
  },
  twice: {
    Mark: IconCopy,
    title: "twice in the file",
    says: "stands in the file before",
    say: "stand in the file before",
  },
  cannot: { Mark: IconX, title: "cannot go in", says: "cannot go in", say: "cannot go in" },
};
const ORDER: Fate[] = ["new", "here", "differs", "twice", "cannot"];

/** Which lines, the first by their numbers. */
function named({ lines, rows }: RowsLookedAt["said"][number]): string {
  if (rows === 1) return `Line ${lines[0]}`;
  const more = rows - lines.length;
  return `Lines ${lines.join(", ")}${more ? ` and ${more} more` : ""}`;
}

const lines = (first: number, last: number) => (first === last ? `Line ${first}` : `Lines ${first}–${last}`);

function Mark({ of }: { of: Fate }) {
  const { Mark: Shape } = WORDS[of];
  return <Shape size={22} aria-hidden="true" />;
}

/** What comes of every row: how many of each, why not where not, and every line. */
export function Fates({ found, after }: { found: RowsLookedAt; after: boolean }) {
  const word = (fate: Fate, rows: number) =>
    (after && WORDS[fate].after) || (rows === 1 ? WORDS[fate].says : WORDS[fate].say);
  return (
    <section aria-labelledby="fates">
      <h3 id="fates">{after ? "What came of every row" : "What would come of every row"}</h3>
      <ul className={classes.counts}>
        {ORDER.filter((fate) => found.counts[fate]).map((fate) => (
          <li key={fate} data-fate={fate}>
            <Mark of={fate} />
            <strong>{found.counts[fate]}</strong> {WORDS[fate].title}
          </li>
        ))}
      </ul>
      {found.said.length > 0 && (
        <ul className={classes.said}>
          {found.said.map((row) => (
            <li key={row.lines[0]} data-fate={row.fate}>
              <strong>{named(row)}</strong> {row.rows === 1 ? WORDS[row.fate].says : WORDS[row.fate].say}.{" "}
              {row.problems.map(({ path, text }) => (path ? `${path}: ${text}` : sentence(text))).join("; ")}
            </li>
          ))}
        </ul>
      )}
      <details className={classes.every}>
        <summary>Every line</summary>
        <ul className={classes.runs}>
          {found.runs.map((run) => (
            <li key={run.first}>
              <Mark of={run.fate} /> {lines(run.first, run.last)}: {word(run.fate, run.rows)}
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}
