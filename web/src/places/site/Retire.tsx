import client, { answer, type Site } from "../../api/client";
import { SURVEY } from "../../api/records";
import { useMay } from "../../api/session";
import { useRecord } from "../../api/useRecord";
import { OutOfUse } from "../../parts/OutOfUse";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";

type What = Site["retired"][number]["what"];

/** Takes a place out of use, or brings it back: nothing that was recorded there is lost by either. */
function useRetire() {
  return useRecord(SURVEY, ({ what, id, retired }: { what: What; id: string; retired: boolean }) =>
    answer(
      client.PUT("/api/places/{what}/{place_id}/retired", {
        params: { path: { what, place_id: id } },
        body: { retired },
      }),
    ),
  );
}

export function Retire({ what, id, done }: { what: What; id: string; done: () => void }) {
  const retire = useRetire();
  if (!useMay("retire")) return null;
  return (
    <>
      <TwoTapButton
        asks="Take it out of use"
        again="Take it out of use: tap again"
        mt="md"
        fullWidth
        loading={retire.isPending}
        onTapped={() => retire.mutate({ what, id, retired: true }, { onSuccess: done })}
      />
      <Unplaced error={retire.error} />
    </>
  );
}

export function Retired({ list }: { list: Site["retired"] }) {
  const retire = useRetire();
  const bringBack = ({ what, id }: Site["retired"][number]) => retire.mutate({ what, id, retired: false });
  return <OutOfUse list={list} error={retire.error} onBringBack={bringBack} />;
}
