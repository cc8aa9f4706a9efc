import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { AlongChain } from "../../../api/client";
import { useNamedTester } from "../../../api/lastTester";
import { useTesters } from "../../../api/queries";
import { HeldTester } from "../../../parts/HeldTester";
import { typedNumber } from "../../../reading/typedNumber";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { Meter } from "../Meter";
import { Steps } from "../Steps";

type Next = NonNullable<AlongChain["answer"]["next"]>;

/** The joint to measure next, against the return. */
export function ChainNext({ hunt, chain, next, seen }: AtHunt & { chain: AlongChain; next: Next }) {
  return (
    <>
      <h2 className={classes.where}>Measure after {chain.next_name}</h2>
      <p>
        <strong>{next.expected_minutes} min</strong> still to come, against the return.
      </p>
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      {chain.advice && <p className={classes.first}>{chain.advice}</p>}
      <Steps steps={hunt.steps} />
      <JointVolts key={next.at} hunt={hunt.id} after={next.at} name={chain.next_name} seen={seen} />
      <details className={classes.fold}>
        <summary>Why here</summary>
        <p>{next.why}</p>
      </details>
    </>
  );
}

function JointVolts(props: { hunt: string; after: string; name: string; seen: AtHunt["seen"] }) {
  const { hunt, after, name, seen } = props;
  const [volts, type] = useState("");
  const testers = useTesters().data ?? [];
  const held = useNamedTester("live", testers);
  return (
    <form
      className={classes.numbers}
      onSubmit={(event) => {
        event.preventDefault();
        seen({ after, volts: typedNumber(volts) }, `after ${name}: ${volts} V`, held.tester?.id);
      }}
    >
      <TextInput
        label={`After ${name} to the return, V`}
        inputMode="decimal"
        value={volts}
        onChange={(event) => type(event.currentTarget.value)}
      />
      <Meter
        hunt={hunt}
        tester={held.tester?.id}
        probes={{ at: after, function: "volts", from: "L", to: "N" }}
        name={`after ${name}`}
        onShown={type}
      />
      <HeldTester testers={testers} held={held.tester?.id ?? null} named={held.named} onName={held.name} />
      <Button type="submit" size="lg" disabled={volts === ""}>
        Record
      </Button>
    </form>
  );
}
