import type { Own } from "../../api/client";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./Own.module.css";

const SAID: Record<Own["log"][number]["what"], string> = {
  joined: "Joined",
  "signed-in": "Signed in",
  "signed-out": "Signed out",
  "wrong-password": "Wrong password",
  "wrong-code": "Wrong code",
  ended: "A device was signed out",
  "password-changed": "Password changed",
  "two-step-on": "Two steps turned on",
  "two-step-off": "Two steps turned off",
};

/** What happened to the way in, the latest first. */
export function SignInLog({ log }: { log: Own["log"] }) {
  return (
    <section aria-labelledby="log">
      <h2 id="log">What happened to your way in</h2>
      {log.length === 0 && <p className="quiet">Nothing yet.</p>}
      <ul className={classes.lines}>
        {log.map((one) => (
          <li key={`${one.at} ${one.what}`} data-what={one.what}>
            <span>
              <strong>{SAID[one.what]}</strong>
              <span className="quiet">
                {dayAndTimeOf(one.at)} · {one.device} · {one.address}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
