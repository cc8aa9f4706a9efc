import { Link, useParams } from "react-router";
import { useSignOffs, useSite } from "../../api/queries";
import { useSession } from "../../api/session";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SignOffList } from "../../parts/SignOffList";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";

/** The one site a guest reads: what was signed, and each point with what its readings say. */
export function GuestSite() {
  const { siteId = "" } = useParams();
  const site = useSite(siteId);
  const signOffs = useSignOffs();
  const session = useSession().data;
  if (site.isError && !site.data) return <Failure error={site.error} retry={() => site.refetch()} />;
  if (!site.data) return <div aria-busy="true" />;
  const circuits = site.data.supplies.flatMap(({ boards }) =>
    boards.flatMap((board) => board.circuits.map((circuit) => ({ board, circuit }))),
  );
  return (
    <Page
      title={site.data.name}
      under={`You read it as a guest of ${session?.crew}${session?.until ? ` until ${dayOf(session.until)}` : ""}`}
      actions={<Link to={`/record/timeline/site/${siteId}`}>Everything on record</Link>}
    >
      {(signOffs.data?.length ?? 0) > 0 && (
        <section aria-labelledby="signed">
          <h2 id="signed">Signed off</h2>
          <SignOffList signOffs={signOffs.data ?? []} />
        </section>
      )}
      {circuits.map(({ board, circuit }) => (
        <section key={circuit.id} aria-labelledby={circuit.id}>
          <h2 id={circuit.id}>
            {circuit.name} <span className="quiet">{board.name}</span>
          </h2>
          <ul className={work.list}>
            {circuit.points.map((point) => (
              <li key={point.id}>
                <Link to={`/record/timeline/point/${point.id}`} className={work.line}>
                  <VerdictShape kind={point.verdict} size={24} />
                  <span>
                    <strong>{point.name}</strong>
                    <span className="quiet">{point.summary}</span>
                  </span>
                  <span className={work.right}>{WORDS[point.verdict]}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </Page>
  );
}
