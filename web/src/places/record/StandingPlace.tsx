import { Button, TextInput } from "@mantine/core";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { StandingPoint } from "../../api/client";
import { useCutOff } from "../../api/freshness";
import { LOOK_AGAIN_MS, useStanding } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { LastKnown } from "../../parts/LastKnown";
import { Page } from "../../parts/Page";
import { PointLink } from "../../parts/PointLink";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";

const WHATS = [
  { value: "not-safe", label: "Not safe" },
  { value: "failed", label: "Failed" },
  { value: "not-tested", label: "Not tested since" },
] as const;
export type Standing = (typeof WHATS)[number]["value"];
const NONE: Record<Standing, string> = {
  "not-safe": "Every point on record is safe and correct as far as it was measured.",
  failed: "No dead test in force failed, and every device that was tested tripped in time.",
  "not-tested": "Every point on record was tested since then.",
};

/** Points by how they stand, over all sites: what the next visit is for. */
export function StandingPlace() {
  const { what = "not-safe" } = useParams();
  const navigate = useNavigate();
  const [asked, ask] = useSearchParams();
  const since = asked.get("since") ?? "";
  const chosen = (WHATS.find(({ value }) => value === what)?.value ?? "not-safe") as Standing;
  const found = useStanding(chosen, chosen === "not-tested" ? since : "");
  const points = found.data?.pages.flatMap((page) => page.points);
  const cutOff = useCutOff(found, LOOK_AGAIN_MS);
  if (found.isError && !found.data) return <Failure error={found.error} retry={() => found.refetch()} />;
  return (
    <Page
      title="Points by how they stand"
      back={["/record", "Record"]}
      busy={found.isPending}
      actions={
        <Button component={Link} to="/record/visits/new">
          Plan a visit
        </Button>
      }
    >
      <Choice
        label="Show"
        value={chosen}
        onChange={(next) => navigate(`/record/points/${next}`, { replace: true })}
        data={[...WHATS]}
      />
      {chosen === "not-tested" && (
        <TextInput
          type="date"
          label="Since"
          description="A year ago where nothing is said"
          mt="sm"
          maw={240}
          value={since}
          onChange={(event) => ask(event.currentTarget.value ? { since: event.currentTarget.value } : {})}
        />
      )}
      {points?.length === 0 && <p role="status">{NONE[chosen]}</p>}
      {cutOff !== null && found.data && (
        <p role="alert">
          <LastKnown since={cutOff} /> Treat as live.
        </p>
      )}
      <ul className={work.list}>
        {points?.map((point) => (
          <li key={point.id}>
            <PointLink point={point} where={`${point.where}. ${saidOf(point)}`} lastKnown={cutOff !== null} />
          </li>
        ))}
      </ul>
      {found.hasNextPage && (
        <Button
          variant="default"
          mt="md"
          loading={found.isFetchingNextPage}
          onClick={() => found.fetchNextPage()}
        >
          Show more
        </Button>
      )}
    </Page>
  );
}

const saidOf = ({ last_tested, failed }: StandingPoint) =>
  [
    failed.length > 0 && `Failed: ${failed.join(", ")}.`,
    last_tested ? `Last tested ${dayOf(last_tested)}.` : "Never tested.",
  ]
    .filter(Boolean)
    .join(" ");
