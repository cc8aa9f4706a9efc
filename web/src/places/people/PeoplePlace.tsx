import { Button } from "@mantine/core";
import { useState } from "react";
import { usePeople } from "../../api/queries";
import { useSession } from "../../api/session";
import { Failure } from "../../parts/Failure";
import folds from "../../parts/Fold.module.css";
import { Page } from "../../parts/Page";
import { AskIn } from "./AskIn";
import { LinkCard } from "./LinkCard";
import { MemberLine } from "./MemberLine";
import classes from "./People.module.css";

/** Who is in the crew and as what; asking somebody in is the one next action. */
export function PeoplePlace() {
  const people = usePeople();
  const own = useSession().data?.account;
  const [asking, ask] = useState(false);
  if (people.isError && !people.data) return <Failure error={people.error} retry={() => people.refetch()} />;
  const { members = [], links = [], roles = [] } = people.data ?? {};
  const here = members.filter((one) => one.left_at === null);
  const gone = members.filter((one) => one.left_at !== null);
  return (
    <Page
      title="People"
      under="Who is in your crew, and what each may do"
      back={["/own", "You"]}
      busy={people.isPending}
      actions={!asking && <Button onClick={() => ask(true)}>Ask somebody in</Button>}
    >
      {asking && <AskIn roles={roles} done={() => ask(false)} />}
      {links.length > 0 && (
        <section aria-labelledby="open-links">
          <h2 id="open-links">Not used yet</h2>
          <p>Give each to whoever it is for, by whatever way is safe. It opens once, and ends by itself.</p>
          <ul className={classes.list}>
            {links.map((link) => (
              <LinkCard key={link.id} link={link} />
            ))}
          </ul>
        </section>
      )}
      <ul className={classes.list} aria-label="In the crew">
        {here.map((one) => (
          <MemberLine key={one.account} member={one} roles={roles} you={one.account === own} />
        ))}
      </ul>
      {gone.length > 0 && (
        <details className={folds.fold}>
          <summary>Left: {gone.length}. Their names stay on the record</summary>
          <ul className={classes.list}>
            {gone.map((one) => (
              <MemberLine key={one.account} member={one} roles={roles} you={false} />
            ))}
          </ul>
        </details>
      )}
      <section aria-labelledby="roles">
        <h2 id="roles">What each may do</h2>
        <dl className={classes.roles}>
          {roles.map(({ id, does, beside }) => (
            <div key={id}>
              <dt>{named(id)}</dt>
              <dd>
                {does}
                {beside && `; ${beside} only with a second person who types name and password there`}.
              </dd>
            </div>
          ))}
        </dl>
      </section>
    </Page>
  );
}

export const named = (role: string) => role.charAt(0).toUpperCase() + role.slice(1);
