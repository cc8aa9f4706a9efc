import type { Holding } from "../../api/client";
import classes from "./Chain.module.css";

/** The parts in the order the hand holds them; the one that brings the whole down is marked. */
export function Chain({ links, fit }: { links: Holding["chain"]; fit: boolean }) {
  return (
    <ol className={classes.chain} aria-label="The chain in your hand">
      {links.map((link) => (
        <li key={link.name} data-weakest={link.weakest ? (fit ? "fit" : "not-fit") : undefined}>
          <strong>{link.name}</strong>
          <span className="mono">
            {link.category ?? "?"} · {link.voltage ?? "?"} V
          </span>
          {link.weakest && <em>weakest</em>}
        </li>
      ))}
    </ol>
  );
}
