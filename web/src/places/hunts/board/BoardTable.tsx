import type { OverBoard } from "../../../api/client";
import type { Waiting } from "../../../api/outbox/waiting";
import classes from "../Hunts.module.css";
import { withTaps } from "./taps";

/** Every outlet with what it showed in each round, and which way feeds it. */
export function BoardTable({ map, told }: { map: OverBoard; told: Waiting[] }) {
  const outlets = withTaps(map, told);
  return (
    <div className={classes.scroll}>
      <table className={classes.map}>
        <caption className="quiet">● live, ○ dead in each round</caption>
        <thead>
          <tr>
            <th scope="col">Outlet</th>
            {map.rounds.map((one) => (
              <th key={one.round} scope="col">
                {one.round}
              </th>
            ))}
            <th scope="col">Fed by</th>
          </tr>
        </thead>
        <tbody>
          {outlets.map((outlet) => (
            <tr key={outlet.id}>
              <th scope="row">{outlet.name}</th>
              {outlet.live.map((live, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a round is known by its number
                <td key={index}>
                  <span aria-hidden>{live === null ? "·" : live ? "●" : "○"}</span>
                  <span className={classes.hidden}>{live === null ? "not yet" : live ? "live" : "dead"}</span>
                </td>
              ))}
              <td>
                <strong>{outlet.ways.join(", ")}</strong>
                {outlet.odd && <span className={classes.saw}>≠ {outlet.odd}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
