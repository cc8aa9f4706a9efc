import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Live } from "../../api/client";
import { keys } from "../../api/keys";
import { useLinks } from "../../api/queries";
import { functionNamed } from "../../reading/functions";
import type { Setup } from "../../reading/setup";
import { typedNumber } from "../../reading/typedNumber";

const EVERY_MS = 700;

export type LiveMeter = {
  live: Live | undefined;
  unreachable: boolean;
  held: Live | null;
  hold: () => void;
  anew: () => void;
};

/** What the meter in the hand shows with the probes where they are; null where it has no link or nothing to show. */
export function useLiveMeter(pointId: string, setup: Setup): LiveMeter | null {
  const links = useLinks();
  const linked = links.data?.links.some((link) => link.tester === setup.tester) ?? false;
  const { measuring, reference } = setup.probes;
  const wired = functionNamed(setup.what).on_a_wire;
  const atWork =
    linked && wired && measuring !== null && reference !== null && !reference.startsWith("BOARD-");
  const amperes = typedNumber(setup.amperes);
  const body = {
    function: setup.what,
    from: measuring ?? "",
    to: reference ?? "",
    load_here_a: setup.load === "here" && typeof amperes === "number" ? amperes : null,
    load_elsewhere_a: setup.load === "elsewhere" && typeof amperes === "number" ? amperes : null,
    load_between: setup.load === "none" || !setup.loadBetween ? null : setup.loadBetween.split(" "),
    device_open: setup.deviceOpen,
  };
  const key = JSON.stringify(body);
  const [held, setHeld] = useState<{ key: string; live: Live } | null>(null);
  const holding = held?.key === key ? held.live : null;
  const ask = (begin_anew: boolean) =>
    answer(
      client.POST("/api/points/{point_id}/live/{tester_id}", {
        params: { path: { point_id: pointId, tester_id: setup.tester ?? "" } },
        body: { ...body, begin_anew },
      }),
    );
  const query = useQuery({
    queryKey: keys.live(pointId, setup.tester, key),
    queryFn: () => ask(false),
    enabled: atWork && holding === null,
    refetchInterval: EVERY_MS,
    retry: false,
    gcTime: 0,
  });
  if (!atWork) return null;
  return {
    live: query.data,
    unreachable: query.isError,
    held: holding,
    hold: () => setHeld(holding || !query.data ? null : { key, live: query.data }),
    anew: () => ask(true).then(() => query.refetch()),
  };
}
