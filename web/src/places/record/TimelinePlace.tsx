import { Button, NativeSelect, TextInput } from "@mantine/core";
import { Link, useParams, useSearchParams } from "react-router";
import type { Happened } from "../../api/client";
import { type Scope, type TimelineAsked, useTesters, useTimeline, useTrends } from "../../api/queries";
import { useSession } from "../../api/session";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { shownAt } from "../../parts/shownAt";
import { Trend } from "../../parts/Trend";
import plots from "../../parts/Trend.module.css";
import { dayOf, timeOf } from "../../reading/dates";
import { HangPhoto } from "./HangPhoto";
import classes from "./Timeline.module.css";

const KINDS: Record<Happened["kind"], string> = {
  reading: "Readings",
  "dead-test": "Dead tests",
  isolation: "Isolation",
  hunt: "Hunts",
  round: "Rounds",
  visit: "Visits",
  check: "Checks of testers",
  fault: "Faulty testers",
  photo: "Photos",
  "sign-off": "Sign-offs",
  file: "Files brought in",
  change: "Changes",
};
const SCOPES: Record<Scope, string> = {
  point: "Everything on record of this point",
  circuit: "Everything on record of this circuit",
  site: "Everything on record of this site",
  tester: "Everything this tester took, and what was found of it",
  crew: "Everything on record",
};
/** What of the record a guest can open. */
const GUESTS_SEE = ["site", "sign-off", "circuit"];
/** Sorts of thing a picture can hang on from here. */
const HOLDS = ["reading", "dead-test", "isolation", "hunt", "round"];

/** The line of time: what happened, the latest first, with filters that stay in the address. */
export function TimelinePlace() {
  const { scope = "crew", of = "" } = useParams();
  const [query, setQuery] = useSearchParams();
  const asked = Object.fromEntries(query) as TimelineAsked;
  const found = useTimeline(scope as Scope, of, asked);
  const guest = useSession().data?.role === "guest";
  const testers = useTesters(!guest);
  const trends = useTrends(scope === "point" ? of : null);
  if (found.isError && !found.data) return <Failure error={found.error} retry={() => found.refetch()} />;
  const pages = found.data?.pages ?? [];
  const happened = pages.flatMap((page) => page.happened);
  const people = [...new Set(pages.flatMap((page) => page.people))].sort();
  const set = (key: keyof TimelineAsked, value: string) => {
    const next = new URLSearchParams(query);
    if (value) next.set(key, value);
    else next.delete(key);
    setQuery(next, { replace: true });
  };
  const days = [...new Set(happened.map((one) => dayOf(one.at)))];
  return (
    <Page
      title={pages[0]?.name ?? "Line of time"}
      under={SCOPES[scope as Scope]}
      back={guest ? ["/", "Site"] : ["/record", "Record"]}
      busy={found.isPending}
      actions={
        scope !== "crew" &&
        !guest && <HangPhoto on={scope as Exclude<Scope, "crew">} of={of} name={pages[0]?.name ?? ""} />
      }
    >
      {(trends.data?.length ?? 0) > 0 && (
        <section aria-label="Across visits" className={plots.trends}>
          {trends.data?.map((one) => (
            <Trend key={one.title} series={one} />
          ))}
        </section>
      )}
      <fieldset className={classes.filters}>
        <legend className="visually-hidden">Show only</legend>
        <NativeSelect
          label="What"
          value={asked.kind ?? ""}
          onChange={(event) => set("kind", event.currentTarget.value)}
          data={[
            { value: "", label: "Everything" },
            ...Object.entries(KINDS).map(([value, label]) => ({ value, label })),
          ]}
        />
        <NativeSelect
          label="By"
          value={asked.by ?? ""}
          onChange={(event) => set("by", event.currentTarget.value)}
          data={[
            { value: "", label: "Anybody" },
            ...[...new Set([...people, ...(asked.by ? [asked.by] : [])])].map((name) => ({
              value: name,
              label: name,
            })),
          ]}
        />
        {scope !== "tester" && !guest && (
          <NativeSelect
            label="With"
            value={asked.tester ?? ""}
            onChange={(event) => set("tester", event.currentTarget.value)}
            data={[
              { value: "", label: "Any tester" },
              ...(testers.data ?? []).map((tester) => ({ value: tester.id, label: tester.label })),
            ]}
          />
        )}
        <TextInput
          label="From"
          type="date"
          value={asked.since ?? ""}
          onChange={(event) => set("since", event.currentTarget.value)}
        />
        <TextInput
          label="Until"
          type="date"
          value={asked.until ?? ""}
          onChange={(event) => set("until", event.currentTarget.value)}
        />
      </fieldset>
      {found.data && happened.length === 0 && (
        <p>Nothing is on record{query.size > 0 ? " that fits all of these" : " here yet"}.</p>
      )}
      {days.map((day) => (
        <section key={day} aria-label={day} className={classes.day}>
          <h2>{day}</h2>
          <ol>
            {happened
              .filter((one) => dayOf(one.at) === day)
              .map((one) => (
                <One key={one.id} one={one} guest={guest} />
              ))}
          </ol>
        </section>
      ))}
      {found.hasNextPage && (
        <Button variant="default" loading={found.isFetchingNextPage} onClick={() => found.fetchNextPage()}>
          Earlier
        </Button>
      )}
    </Page>
  );
}

function One({ one, guest }: { one: Happened; guest: boolean }) {
  const to = guest && !GUESTS_SEE.includes(one.place) ? null : shownAt(one.place, one.of);
  return (
    <li data-status={one.status || undefined}>
      <time dateTime={one.at} className="mono">
        {timeOf(one.at)}
      </time>
      <span>
        {to ? (
          <Link to={to}>
            <strong>{one.text}</strong>
          </Link>
        ) : (
          <strong>{one.text}</strong>
        )}
        <span className={classes.beside}>
          {[one.how, one.where, one.tester, one.source, one.by].filter(Boolean).join(" · ")}
        </span>
        {one.status && <em className={classes.status}>{one.status}, kept</em>}
        {one.photos.map((photo) => (
          <a key={photo} href={`/api/photos/${photo}`} target="_blank" rel="noreferrer">
            <img
              className={classes.photo}
              src={`/api/photos/${photo}`}
              alt={`Of ${one.text}`}
              loading="lazy"
            />
          </a>
        ))}
      </span>
      {!guest && HOLDS.includes(one.kind) && (
        <HangPhoto on={one.kind as "reading"} of={one.id} name={one.text} />
      )}
    </li>
  );
}
