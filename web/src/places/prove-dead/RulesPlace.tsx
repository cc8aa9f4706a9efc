import { Button, Text, Textarea, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Refusal, type Rules } from "../../api/client";
import { useProofReference, useRules } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Toggle } from "../../parts/Toggle";
import { Unplaced } from "../../parts/Unplaced";
import { theReference } from "../../reading/reference";
import { typedOrNone } from "../../reading/typedNumber";
import shared from "./Prove.module.css";
import classes from "./RulesPlace.module.css";

export function RulesPlace() {
  const rules = useRules();
  if (rules.isError && !rules.data) return <Failure error={rules.error} retry={() => rules.refetch()} />;
  return (
    <Page title="This crew's rules" back={["/prove-dead", "Prove dead"]}>
      {rules.data && <RulesForm rules={rules.data} />}
    </Page>
  );
}

const PLACED = ["proof_window_min", "unattended_min", "reason"];

/** Tighter as the crew likes; looser than the handbook only with a reason, which every proof then shows. */
function RulesForm({ rules }: { rules: Rules }) {
  const queries = useQueryClient();
  const handbook = useProofReference().data?.handbook;
  const [window, setWindow] = useState(String(rules.proof_window_min));
  const [unattended, setUnattended] = useState(String(rules.unattended_min));
  const [kinds, setKinds] = useState<string[]>(rules.dead_kinds ?? []);
  const [least, setLeast] = useState(rules.least_rating ? "yes" : "no");
  const [reason, setReason] = useState(rules.reason);
  const save = useMutation<Rules, Refusal>({
    mutationFn: () =>
      answer(
        client.PUT("/api/rules", {
          body: {
            proof_window_min: typedOrNone(window),
            unattended_min: typedOrNone(unattended),
            dead_kinds: kinds.length ? kinds : null,
            least_rating: least === "yes",
            reason,
          },
        }),
      ),
    onSuccess: (after) => queries.setQueryData(["rules"], after),
  });
  const wrong = (path: string) => save.error?.problems.find((p) => p.path.startsWith(path))?.text;
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Text mt="md">
        They hold for proofs begun from now on. A proof that runs keeps the rules it was begun with.
      </Text>
      <div className={shared.two}>
        <TextInput
          mt="sm"
          label="Minutes between a proof of the tester and its readings"
          description={`Usual: ${handbook?.proof_window_min ?? ""}`}
          inputMode="decimal"
          value={window}
          error={wrong("proof_window_min")}
          onChange={(event) => setWindow(event.currentTarget.value)}
        />
        <TextInput
          mt="sm"
          label="Minutes with nobody seen until it is no longer valid"
          description={`Usual: ${handbook?.unattended_min ?? ""}`}
          inputMode="decimal"
          value={unattended}
          error={wrong("unattended_min")}
          onChange={(event) => setUnattended(event.currentTarget.value)}
        />
      </div>
      <fieldset className={classes.kinds}>
        <legend>Testers that may prove dead. None chosen: as the practice has it</legend>
        {theReference()
          .kinds.filter((kind) => kind.may_prove_dead)
          .map(({ id, name }) => (
            <Toggle
              key={id}
              on={kinds.includes(id)}
              onToggle={() => setKinds(kinds.includes(id) ? kinds.filter((k) => k !== id) : [...kinds, id])}
            >
              {name}
            </Toggle>
          ))}
      </fieldset>
      <Choice
        label="Nothing under category III 600 V on building wiring"
        value={least}
        onChange={setLeast}
        data={[
          { value: "no", label: "Warn" },
          { value: "yes", label: "Does not count" },
        ]}
      />
      <Textarea
        mt="md"
        label="Reason, where a rule is looser than usual"
        description="Shown on every proof it holds for."
        autosize
        minRows={2}
        value={reason}
        error={wrong("reason")}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Unplaced error={save.error} placed={PLACED} />
      <Button type="submit" className={shared.main} loading={save.isPending}>
        {save.isSuccess ? "Kept" : "Keep these rules"}
      </Button>
    </form>
  );
}
