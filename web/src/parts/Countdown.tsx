import { useEffect, useState } from "react";

/** The time left until a moment of the server's clock, ticking. `ahead`: how far this device's clock is ahead, in ms. */
export function Countdown(props: { until: string; ahead: number; onOver?: () => void }) {
  const { until, ahead, onOver } = props;
  const left = () => Date.parse(until) - (Date.now() - ahead);
  const [, tick] = useState(0);
  const over = left() <= 0;
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 500);
    return () => clearInterval(timer);
  }, []);
  useEffect(() => {
    if (over) onOver?.();
  }, [over, onOver]);
  const seconds = Math.max(0, Math.ceil(left() / 1000));
  const said = `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
  return (
    <time className="mono" dateTime={until}>
      {said}
    </time>
  );
}
