import { Button, Modal, Text } from "@mantine/core";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import client, { answer, type Part, type Tester } from "../../api/client";
import { useKitOutOfUse, useParts, useTesters } from "../../api/queries";
import { KIT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Failure } from "../../parts/Failure";
import { OutOfUse } from "../../parts/OutOfUse";
import { Page } from "../../parts/Page";
import { VerdictShape } from "../../parts/VerdictShape";
import { timeOf } from "../../reading/dates";
import { CheckWalk } from "./CheckWalk";
import classes from "./KitPlace.module.css";
import { PartForm } from "./PartForm";
import { TesterForm } from "./TesterForm";

type Open = { title: string; form: ReactNode };

/** The crew's testers, leads and adapters; what is wrong with each stands on its line. */
export function KitPlace() {
  const testers = useTesters();
  const parts = useParts();
  const gone = useKitOutOfUse().data ?? [];
  const back = useRecord(KIT, (id: string) =>
    answer(client.PUT("/api/kit/{kit_id}/back", { params: { path: { kit_id: id } } })),
  );
  const [open, show] = useState<Open | null>(null);
  const close = () => show(null);
  if (testers.isError && !testers.data)
    return <Failure error={testers.error} retry={() => testers.refetch()} />;
  const of = (role: string) => (parts.data ?? []).filter((p) => p.role === role);
  const edit = (part: Part) =>
    show({ title: part.label, form: <PartForm of={part.role} part={part} done={close} /> });
  return (
    <Page
      title="Kit"
      busy={testers.isPending}
      actions={
        <>
          <Button component={Link} to="/kit/holding" variant="default">
            What am I holding?
          </Button>
          <Button onClick={() => show({ title: "Add a tester", form: <TesterForm done={close} /> })}>
            Add a tester
          </Button>
        </>
      }
    >
      {testers.data?.length === 0 && (
        <Text size="lg" mt="lg">
          Add what you carry, with its category and voltage. Even Probe then says what each is fit for, what
          it is blind to, and whether what it shows may clear anything.
        </Text>
      )}
      <ul className={classes.testers}>
        {testers.data?.map((tester) => (
          <TesterLine
            key={tester.id}
            tester={tester}
            leads={of("leads").find((p) => p.id === tester.usual_leads)?.label}
            onCheck={() =>
              show({
                title: `Today's check: ${tester.label}`,
                form: <CheckWalk testerId={tester.id} done={close} />,
              })
            }
          />
        ))}
      </ul>
      <div className={classes.parts}>
        <PartList title="Leads" parts={of("leads")} onPick={edit}>
          <Button
            variant="default"
            onClick={() => show({ title: "Add leads", form: <PartForm of="leads" done={close} /> })}
          >
            Add leads
          </Button>
        </PartList>
        <PartList title="Adapters" parts={of("adapter")} onPick={edit}>
          <Button
            variant="default"
            onClick={() => show({ title: "Add an adapter", form: <PartForm of="adapter" done={close} /> })}
          >
            Add an adapter
          </Button>
        </PartList>
      </div>
      <OutOfUse list={gone} error={back.error} onBringBack={(one) => back.mutate(one.id)} />
      <Modal opened={open !== null} onClose={close} title={open?.title} size="lg">
        {open?.form}
      </Modal>
    </Page>
  );
}

function TesterLine(props: { tester: Tester; leads: string | undefined; onCheck: () => void }) {
  const { tester } = props;
  const rating = tester.category && tester.rated_v ? `category ${tester.category} ${tester.rated_v} V` : null;
  return (
    <li className={classes.tester}>
      <Link to={`/kit/${tester.id}`} className={classes.testerLink}>
        <VerdictShape
          kind={tester.attention.length ? "defect" : tester.checked_at ? "correct" : "untested"}
        />
        <span>
          <strong>{tester.label}</strong>
          <span className="quiet">
            {[tester.kind_name, rating, props.leads && `with ${props.leads}`].filter(Boolean).join(" · ")}
          </span>
          {tester.attention.map((finding) => (
            <em key={finding.code}>{finding.text}</em>
          ))}
        </span>
      </Link>
      <span className={classes.checked}>
        {tester.checked_at ? `checked ${time(tester.checked_at)}` : "not checked today"}
      </span>
      <Button variant="default" onClick={props.onCheck} aria-label={`Today's check of ${tester.label}`}>
        Check
      </Button>
    </li>
  );
}

const time = (at: string) => timeOf(at);

function PartList(props: {
  title: string;
  parts: Part[];
  onPick: (part: Part) => void;
  children: ReactNode;
}) {
  return (
    <section aria-label={props.title}>
      <div className={classes.partHead}>
        <h2>{props.title}</h2>
        {props.children}
      </div>
      <ul>
        {props.parts.map((part) => (
          <li key={part.id}>
            <button type="button" className={classes.part} onClick={() => props.onPick(part)}>
              <strong>{part.label}</strong>
              <span>
                {[
                  part.category
                    ? `category ${part.category} ${part.rated_v ?? "?"} V`
                    : "rating not recorded",
                  part.tip_covers === false && "tip covers off: category II",
                  part.damage && "damaged: take out of use",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
