import { type Dispatch, useEffect } from "react";
import { useCase } from "../../api/practice";
import { functionNamed } from "../../reading/functions";
import type { Change, Setup } from "../../reading/setup";

/** In a case what was switched at the board is known: no reading says otherwise by an oversight. */
export function useDeviceAsItIs(setup: Setup, change: Dispatch<Change>) {
  const device = useCase().data?.device;
  const { dead } = functionNamed(setup.what);
  const wrong = device !== undefined && !dead && setup.deviceOpen !== (device === "open");
  useEffect(() => {
    if (wrong) change({ do: "device", open: device === "open" });
  }, [wrong, device, change]);
}
