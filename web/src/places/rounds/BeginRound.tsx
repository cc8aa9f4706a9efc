import { NativeSelect } from "@mantine/core";
import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer, type Site } from "../../api/client";
import { newId } from "../../api/ids";
import { useNamedTester } from "../../api/lastTester";
import { useSite, useSitesInUse, useTesters } from "../../api/queries";
import { ROUND } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { BeginForm } from "../../parts/BeginForm";
import { Failure } from "../../parts/Failure";
import { HeldTester } from "../../parts/HeldTester";
import { SiteChoice } from "../../parts/SiteChoice";
import { circuitsOf } from "../site/circuits";
import { roomsOf } from "../site/rooms";

/** Which outlets, and what with. */
export function BeginRound() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const site = useSite(siteId || undefined);
  const testers = useTesters();
  const navigate = useNavigate();
  const id = useRef(newId());
  const [where, setWhere] = useState(
    asked.get("circuit")
      ? `circuit ${asked.get("circuit")}`
      : asked.get("room")
        ? `room ${asked.get("room")}`
        : "",
  );
  const goesRound = (testers.data ?? []).filter((t) => t.goes_round);
  const held = useNamedTester("live", goesRound);
  const { tester } = held;
  const begin = useRecord(ROUND, () => {
    const [what, ...name] = where.split(" ");
    return answer(
      client.PUT("/api/rounds/{round_id}", {
        params: { path: { round_id: id.current } },
        body: {
          site: siteId,
          circuit: what === "circuit" ? name.join(" ") : null,
          room: what === "room" ? name.join(" ") : "",
          tester: tester?.id ?? null,
        },
      }),
    );
  });
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  const plugsIn = tester?.plugs_in ?? false;
  return (
    <BeginForm
      title="Begin a round"
      back={["/rounds", "Rounds"]}
      sites={sites.data?.length}
      needs="outlets"
      ready={where !== "" && held.named && !testers.isPending}
      pending={begin.isPending}
      error={begin.error}
      onBegin={() => begin.mutate(undefined, { onSuccess: (round) => navigate(`/rounds/${round.id}`) })}
    >
      <SiteChoice
        sites={sites.data ?? []}
        chosen={siteId}
        onChoose={(chosen) => {
          setSite(chosen);
          setWhere("");
        }}
      />
      <NativeSelect
        label="Circuit or room"
        value={where}
        onChange={(event) => setWhere(event.currentTarget.value)}
        disabled={!site.data}
        data={[{ value: "", label: "Choose which outlets" }, ...(site.data ? placesOf(site.data) : [])]}
      />
      <HeldTester
        testers={goesRound}
        held={tester?.id ?? null}
        named={held.named}
        onName={held.name}
        description={
          plugsIn
            ? "Plug it in at every outlet. Where its button suits the device, one presses and another watches the board."
            : "Every pair of contacts at every outlet."
        }
      />
    </BeginForm>
  );
}

function placesOf(site: Site) {
  const rooms = roomsOf(site).map((room) => ({ value: `room ${room}`, label: room }));
  const circuits = circuitsOf(site, (circuit) => `circuit ${circuit}`);
  return rooms.length ? [...circuits, { group: "Rooms", items: rooms }] : circuits;
}
