import { Button } from "@mantine/core";
import { useState } from "react";
import classes from "./LineBar.module.css";

const SEEN = "even-probe.plain-page-seen";

/** Over plain HTTP a browser withholds what only secure pages have: that is said, and what it means. */
export function PlainPage() {
  const [seen, see] = useState(() => window.isSecureContext || sessionStorage.getItem(SEEN) !== null);
  if (seen) return null;
  return (
    <div className={classes.bar} role="status">
      <span>
        This page was opened without HTTPS. Without a line it does not open, the screen may go to sleep over a
        running proof, and no alert reaches a locked screen. Open the https address instead (make lan prints
        it).
      </span>
      <Button
        variant="default"
        onClick={() => {
          sessionStorage.setItem(SEEN, "yes");
          see(true);
        }}
      >
        Go on like this
      </Button>
    </div>
  );
}
