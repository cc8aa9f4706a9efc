import { Button, Text } from "@mantine/core";
import { Link } from "react-router";
import { useCutOff } from "../../api/freshness";
import { useLine } from "../../api/line";
import { LOOK_AGAIN_MS, useToday } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { LastKnown } from "../../parts/LastKnown";
import { Page } from "../../parts/Page";
import { PointLink } from "../../parts/PointLink";
import { VerdictShape } from "../../parts/VerdictShape";
import work from "../../parts/WorkList.module.css";
import { HuntList } from "../hunts/HuntList";
import { ProofList } from "../prove-dead/ProofList";
import { VisitList } from "../record/VisitList";
import { RoundList } from "../rounds/RoundList";
import classes from "./Today.module.css";

type Found = NonNullable<ReturnType<typeof useToday>["data"]>;

/** What to do next: proofs of isolation with their clocks, points that are not safe, kit that needs a hand. */
export function Today() {
  const today = useToday();
  const cutOff = useCutOff(today, LOOK_AGAIN_MS);
  const lineDown = useLine();
  if (today.isError && !today.data) return <Failure error={today.error} retry={() => today.refetch()} />;
  const found: Found | undefined = today.data;
  const first = found?.proofs[0];
  return (
    <Page
      title="Today"
      busy={today.isPending}
      actions={
        <>
          <Button component={Link} to="/measure">
            Measure an outlet now
          </Button>
          <Button component={Link} to="/prove-dead/new" variant="default">
            Prove something dead
          </Button>
          <Button component={Link} to="/plug-in" variant="default">
            Before plugging in
          </Button>
        </>
      }
    >
      {found && cutOff !== null && lineDown === null && (
        <p className={classes.cutOff} role="status">
          <LastKnown since={cutOff} /> Somebody else may have changed it: treat as live.
        </p>
      )}
      {found && isNew(found) && <Beginning />}
      {found && !isNew(found) && (
        <div className={classes.columns}>
          <div>
            {found.visits.length > 0 && (
              <section aria-labelledby="today-visits">
                <h2 id="today-visits">Visits</h2>
                <VisitList visits={found.visits} />
              </section>
            )}
            <section aria-labelledby="today-proofs">
              <h2 id="today-proofs">Proofs of isolation</h2>
              {first ? (
                <ProofList proofs={found.proofs} asked={found.asked} cutOff={cutOff !== null} />
              ) : (
                <Text className="quiet">None is running. Nothing is dead: treat all as live.</Text>
              )}
            </section>
            {found.hunts.length > 0 && (
              <section aria-labelledby="today-hunts">
                <h2 id="today-hunts">Hunts</h2>
                <HuntList hunts={found.hunts} />
              </section>
            )}
            {found.rounds.length > 0 && (
              <section aria-labelledby="today-rounds">
                <h2 id="today-rounds">Rounds begun</h2>
                <RoundList rounds={found.rounds} />
              </section>
            )}
          </div>
          <div>
            <section aria-labelledby="today-points">
              <h2 id="today-points">Not safe yet</h2>
              {cutOff === null && found.points_old > 0 && (
                <Text role="status">
                  {found.points_old === 1 ? "1 point is" : `${found.points_old} points are`} being worked out
                  again.
                </Text>
              )}
              {found.points.length === 0 && (
                <Text className="quiet">
                  {found.measured > 0 ? "No measured point waits for anything." : "Nothing was measured yet."}
                </Text>
              )}
              <ul className={work.list}>
                {found.points.map((point) => (
                  <li key={point.id}>
                    <PointLink point={point} where={`${point.circuit}, ${point.site}`} />
                  </li>
                ))}
              </ul>
              {found.points_not_safe > found.points.length && (
                <Button component={Link} to="/record/points/not-safe" variant="subtle">
                  All {found.points_not_safe} points, and those not tested
                </Button>
              )}
            </section>
            <section aria-labelledby="today-kit">
              <h2 id="today-kit">Kit</h2>
              {found.kit.length === 0 && (
                <Text className="quiet">
                  {found.testers > 0 ? "Nothing is wrong with it." : "No tester is on record."}
                </Text>
              )}
              <ul className={work.list}>
                {found.kit.map((tester) => (
                  <li key={tester.id}>
                    <Link to={`/kit/${tester.id}`} className={work.line}>
                      <VerdictShape kind="defect" size={24} />
                      <span>
                        <strong>{tester.label}</strong>
                        {tester.attention.map((text) => (
                          <em key={text}>{text}</em>
                        ))}
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          </div>
        </div>
      )}
    </Page>
  );
}

const isNew = (found: Found) =>
  found.sites === 0 &&
  found.testers === 0 &&
  found.measured === 0 &&
  found.proofs.length === 0 &&
  found.visits.length === 0;

/** A crew's first day: what to begin with, in this order. */
function Beginning() {
  return (
    <ol className={classes.beginning}>
      <li>
        <strong>Measure an outlet now.</strong> Nothing has to be on record for it: say what it looks like and
        read three voltages. <Link to="/measure">Measure an outlet</Link>
      </li>
      <li>
        <strong>Put your first tester on record.</strong> Only a tester that is fit and proved can confirm
        anything. <Link to="/kit">Open the kit</Link>
      </li>
      <li>
        <strong>Add your first site.</strong> Its supply, boards and circuits sharpen what readings can say.{" "}
        <Link to="/sites">Open the sites</Link>
      </li>
    </ol>
  );
}
