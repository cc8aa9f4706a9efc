import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import client, { answer, type HuntLiveIn, type Live } from "../../api/client";
import { useLinks } from "../../api/queries";
import { figure } from "../../reading/figure";
import classes from "./Hunts.module.css";

export type Probes = Omit<HuntLiveIn, "side"> & { side?: HuntLiveIn["side"] };

/** What a meter on the wire shows with its probes there, for one field; nothing where it has no link. */
export function Meter(props: {
  hunt: string;
  tester: string | undefined;
  probes: Probes;
  name: string;
  onShown: (shown: string) => void;
}) {
  const links = useLinks();
  const { tester, name, onShown } = props;
  const ask = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/hunts/{hunt_id}/live/{tester_id}", {
          params: { path: { hunt_id: props.hunt, tester_id: tester ?? "" } },
          body: { side: "", ...props.probes },
        }),
      ),
    onSuccess: (live) => {
      if (live.state === "live" && live.value !== null) onShown(figure(live.value));
      if (live.state === "over-range") onShown("over");
    },
  });
  if (!tester || !links.data?.links.some((link) => link.tester === tester)) return null;
  return (
    <span className={classes.meter}>
      <Button
        variant="default"
        loading={ask.isPending}
        onClick={() => ask.mutate()}
        aria-label={`Read ${name}`}
      >
        Read
      </Button>
      {ask.data?.problem && <span role="alert">{wrong(ask.data)}</span>}
      {ask.isError && <span role="alert">The server cannot be reached. Type it.</span>}
    </span>
  );
}

const wrong = (live: Live) => `${live.problem}. Type it.`;
