import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { Visit } from "../../api/client";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./Record.module.css";
import type { KeepVisit } from "./VisitPlace";
import { whereIs } from "./where";

/** What is isolated, locked, open or taken apart at the site, by whomever; and what somebody says they leave open. */
export function Open({ visit, keep }: { visit: Visit; keep: KeepVisit }) {
  const [what, setWhat] = useState("");
  return (
    <section aria-labelledby="visit-open">
      <h2 id="visit-open">{visit.state === "closed" ? "Left open by this visit" : "Open at this site"}</h2>
      {visit.still_open.length === 0 && <p className="quiet">Nothing is on record as open.</p>}
      <ul className={classes.lines}>
        {visit.still_open.map((one) => (
          <li key={`${one.of} ${one.event ?? ""} ${one.text}`} className={classes.open}>
            <span>
              {one.place === "visit" && one.of === visit.id ? (
                one.text
              ) : (
                <Link to={whereIs(one, visit.site.id)}>{one.text}</Link>
              )}
              <span className="quiet">
                {" "}
                {dayAndTimeOf(one.since, visit.practice)}, {one.by}
              </span>
            </span>
            {one.event && one.of === visit.id && (
              <Button
                variant="default"
                onClick={() => keep("put-right", { event: one.event }, `Put right: ${one.text}`)}
              >
                Put right
              </Button>
            )}
          </li>
        ))}
      </ul>
      {visit.state === "begun" && (
        <form
          className={classes.note}
          onSubmit={(event) => {
            event.preventDefault();
            if (what.trim() === "") return;
            keep("left-open", { what }, `Left open: ${what}`);
            setWhat("");
          }}
        >
          <TextInput
            label="Something else is open or apart"
            placeholder="Cover of the box in the warm room"
            value={what}
            onChange={(event) => setWhat(event.currentTarget.value)}
            maxLength={400}
          />
          <Button type="submit" variant="default">
            Keep it listed
          </Button>
        </form>
      )}
    </section>
  );
}
