import { useRegisterSW } from "virtual:pwa-register/react";
import { Button } from "@mantine/core";
import classes from "./LineBar.module.css";

const LOOK_AGAIN_MS = 60 * 60_000;

/** Another version of the page waits for a tap: it never changes under anybody's hands. */
export function NewVersion() {
  const { needRefresh, updateServiceWorker } = useRegisterSW({
    onRegisteredSW: (_, registered) => {
      if (registered) setInterval(() => void registered.update().catch(() => {}), LOOK_AGAIN_MS);
    },
  });
  if (!needRefresh[0]) return null;
  return (
    <div className={classes.bar} role="status">
      <span>A newer version is ready. What is typed and what waits to be sent is kept.</span>
      <Button variant="default" onClick={() => void updateServiceWorker(true)}>
        Use it now
      </Button>
    </div>
  );
}
