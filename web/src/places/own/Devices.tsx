import client, { answer, type Own } from "../../api/client";
import { OWN } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./Own.module.css";

/** Where one is signed in; a device that is lost is signed out from here. */
export function Devices({ devices }: { devices: Own["devices"] }) {
  const end = useRecord(OWN, (id: string) =>
    answer(client.DELETE("/api/own/devices/{device_id}", { params: { path: { device_id: id } } })),
  );
  return (
    <section aria-labelledby="devices">
      <h2 id="devices">Signed in on</h2>
      <ul className={classes.lines}>
        {devices.map((one) => (
          <li key={one.id}>
            <span>
              <strong>
                {one.device || "A device"}
                {one.here && ", this one"}
              </strong>
              <span className="quiet">
                {[
                  one.address,
                  one.since && `since ${dayAndTimeOf(one.since)}`,
                  one.seen && `last here ${dayAndTimeOf(one.seen)}`,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </span>
            {!one.here && (
              <TwoTapButton
                asks="Sign out there"
                again="Sign out there: tap again"
                loading={end.isPending && end.variables === one.id}
                onTapped={() => end.mutate(one.id)}
              />
            )}
          </li>
        ))}
      </ul>
      <Unplaced error={end.error} />
    </section>
  );
}
