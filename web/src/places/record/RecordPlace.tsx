import { Button, Text } from "@mantine/core";
import { IconReport } from "@tabler/icons-react";
import { Link } from "react-router";
import { useSignOffs, useSites, useVisits } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SignOffList } from "../../parts/SignOffList";
import { everything } from "../../parts/shownAt";
import work from "../../parts/WorkList.module.css";
import classes from "./Record.module.css";
import { VisitList } from "./VisitList";

const STANDING = [
  ["not-safe", "Not safe"],
  ["failed", "Failed"],
  ["not-tested", "Not tested for a year"],
] as const;

/** What was done and what it came to: visits, sign-offs, and a report of any site. */
export function RecordPlace() {
  const visits = useVisits();
  const signOffs = useSignOffs();
  const sites = useSites();
  if (visits.isError && !visits.data) return <Failure error={visits.error} retry={() => visits.refetch()} />;
  return (
    <Page
      title="Record"
      busy={visits.isPending}
      actions={
        <>
          <Button component={Link} to="/record/visits/new">
            Plan a visit
          </Button>
          <Button component={Link} to={everything()} variant="default">
            Everything by time
          </Button>
          <Button component={Link} to="/record/labels" variant="default">
            Labels and schedules
          </Button>
          <Button component={Link} to="/record/files" variant="default">
            Files
          </Button>
        </>
      }
    >
      <div className={classes.columns}>
        <section aria-labelledby="record-visits">
          <h2 id="record-visits">Visits</h2>
          {visits.data?.length === 0 && (
            <Text mt="sm">
              A visit is a day's work at a site. Choose its circuits and it says what to bring, who to warn,
              in which order to work and what is left open. What is done is what the record shows.
            </Text>
          )}
          <VisitList visits={visits.data ?? []} />
        </section>
        <div>
          <section aria-labelledby="record-signed">
            <h2 id="record-signed">Signed off</h2>
            {signOffs.data?.length === 0 && (
              <Text mt="sm" className="quiet">
                Nothing is signed yet. A sign-off is made from the report of a visit, a site or a circuit.
              </Text>
            )}
            <SignOffList signOffs={signOffs.data ?? []} />
          </section>
          <section aria-labelledby="record-standing">
            <h2 id="record-standing">Points that want work</h2>
            <div className={classes.picks}>
              {STANDING.map(([what, name]) => (
                <Button key={what} component={Link} to={`/record/points/${what}`} variant="default">
                  {name}
                </Button>
              ))}
            </div>
          </section>
          <section aria-labelledby="record-reports">
            <h2 id="record-reports">Report of a site as it is now</h2>
            <ul className={work.list}>
              {(sites.data ?? [])
                .filter((site) => !site.loose && !site.retired)
                .map((site) => (
                  <li key={site.id}>
                    <Link to={`/record/reports/site/${site.id}`} className={work.line}>
                      <IconReport size={24} aria-hidden="true" />
                      <strong>{site.name}</strong>
                    </Link>
                  </li>
                ))}
            </ul>
          </section>
        </div>
      </div>
    </Page>
  );
}
