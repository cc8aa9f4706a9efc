import { useEffect, useRef, useState } from "react";
import classes from "./HoldButton.module.css";

const HOLD_MS = 1200;

/** For what a life hangs on: pressed and held, by finger or by the space or enter key, and let go too soon it does nothing. */
export function HoldButton(props: { label: string; onHeld: () => void; busy?: boolean }) {
  const [holding, setHolding] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const begin = () => {
    if (props.busy || timer.current !== null) return;
    setHolding(true);
    timer.current = setTimeout(() => {
      stop();
      props.onHeld();
    }, HOLD_MS);
  };
  const stop = () => {
    if (timer.current !== null) clearTimeout(timer.current);
    timer.current = null;
    setHolding(false);
  };
  useEffect(() => () => clearTimeout(timer.current ?? undefined), []);
  const isKey = (event: React.KeyboardEvent) => event.key === "Enter" || event.key === " ";
  return (
    <button
      type="button"
      className={classes.hold}
      aria-disabled={props.busy || undefined}
      data-holding={holding || undefined}
      style={{ "--hold": `${HOLD_MS}ms` } as React.CSSProperties}
      onPointerDown={begin}
      onPointerUp={stop}
      onPointerLeave={stop}
      onPointerCancel={stop}
      onContextMenu={(event) => event.preventDefault()}
      onBlur={stop}
      onKeyDown={(event) => {
        if (!isKey(event)) return;
        event.preventDefault();
        if (!event.repeat) begin();
      }}
      onKeyUp={(event) => isKey(event) && stop()}
    >
      <span>{holding ? "Keep holding" : props.label}</span>
    </button>
  );
}
