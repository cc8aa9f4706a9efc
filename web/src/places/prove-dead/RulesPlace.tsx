import { Button, Text, Textarea, TextInput } from "@mantine/core";
import client, { answer, type Rules } from "../../api/client";
import { useProofReference, useRules } from "../../api/queries";
import { RULES } from "../../api/records";
import { theReference } from "../../api/reference";
import { useMay } from "../../api/session";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Toggle } from "../../parts/Toggle";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
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

/** Tighter as the crew likes; looser than the handbook only with a reason, which every proof then shows. */
function RulesForm({ rules }: { rules: Rules }) {
  const handbook = useProofReference().data?.handbook;
  const { form, save, write, placed } = useRecordForm(
    {
      proof_window_min: String(rules.proof_window_min),
      unattended_min: String(rules.unattended_min),
      dead_kinds: rules.dead_kinds ?? ([] as string[]),
      least_rating: rules.least_rating ? "yes" : "no",
      reason: rules.reason,
    },
    RULES,
    (v) =>
      answer(
        client.PUT("/api/rules", {
          body: {
            proof_window_min: typedOrNone(v.proof_window_min),
            unattended_min: typedOrNone(v.unattended_min),
            dead_kinds: v.dead_kinds.length ? v.dead_kinds : null,
            least_rating: v.least_rating === "yes",
            reason: v.reason,
          },
        }),
      ),
  );
  const may = useMay("rules");
  const kinds = form.values.dead_kinds;
  return (
    <form className={classes.form} onSubmit={form.onSubmit(() => write(undefined, () => {}))}>
      <Text mt="md">
        They hold for proofs begun from now on. A proof that runs keeps the rules it was begun with.
      </Text>
      <div className={shared.two}>
        <TextInput
          mt="sm"
          label="Minutes between a proof of the tester and its readings"
          description={`Usual: ${handbook?.proof_window_min ?? ""}`}
          inputMode="decimal"
          {...form.getInputProps("proof_window_min")}
        />
        <TextInput
          mt="sm"
          label="Minutes with nobody seen until it is no longer valid"
          description={`Usual: ${handbook?.unattended_min ?? ""}`}
          inputMode="decimal"
          {...form.getInputProps("unattended_min")}
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
              onToggle={() =>
                form.setFieldValue(
                  "dead_kinds",
                  kinds.includes(id) ? kinds.filter((k) => k !== id) : [...kinds, id],
                )
              }
            >
              {name}
            </Toggle>
          ))}
      </fieldset>
      <Choice
        label="Nothing under category III 600 V on building wiring"
        {...form.getInputProps("least_rating")}
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
        {...form.getInputProps("reason")}
      />
      <Unplaced error={save.error} placed={placed} />
      {may ? (
        <Button type="submit" className={shared.main} loading={save.isPending}>
          {save.isSuccess ? "Kept" : "Keep these rules"}
        </Button>
      ) : (
        <p className="quiet">A keeper of your crew changes them.</p>
      )}
    </form>
  );
}
