import type { RowsLookedAt } from "../../api/client";
import classes from "./Files.module.css";

/** How the first rows are read, so that a column in the wrong place is seen. */
export function FirstRows({ found }: { found: RowsLookedAt }) {
  const used = found.shown
    .map((header, index) => ({ header, index }))
    .filter(({ index }) => found.first.some((row) => row[index] !== ""));
  if (found.first.length === 0) return null;
  return (
    <section aria-labelledby="first-rows">
      <h3 id="first-rows">How the first rows are read</h3>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by key */}
      <div className={classes.scroll} tabIndex={0}>
        <table className={classes.table}>
          <thead>
            <tr>
              {used.map(({ header }) => (
                <th key={header} scope="col">
                  {header}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {found.first.map((row) => (
              <tr key={row.join("\u0000")}>
                {used.map(({ header, index }) => (
                  <td key={header}>{row[index]}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
