import { Button } from "@mantine/core";
import { useState } from "react";
import client, { answer } from "../../api/client";
import { newId } from "../../api/ids";
import { useTesterPage } from "../../api/queries";
import { KIT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Choice } from "../../parts/Choice";
import { Unplaced } from "../../parts/Unplaced";
import { typedNumber } from "../../reading/typedNumber";
import classes from "./CheckWalk.module.css";
import shared from "./Kit.module.css";

/** A minute on one tester, thing by thing; what was not looked at stays unsaid. */
export function CheckWalk({ testerId, done }: { testerId: string; done: () => void }) {
  const page = useTesterPage(testerId);
  const [id] = useState(() => newId());
  const [found, set] = useState<Record<string, string>>({});
  const save = useRecord(KIT, () =>
    answer(
      client.PUT("/api/testers/{tester_id}/checks/{check_id}", {
        params: { path: { tester_id: testerId, check_id: id } },
        body: { entry: entryOf(found) },
      }),
    ),
  );
  const wrong = (path: string) => save.error?.at(path);
  const answered = Object.values(found).some((value) => value.trim() !== "");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(undefined, { onSuccess: done });
      }}
    >
      <ol className={classes.walk}>
        {page.data?.items.map((item) => (
          <li key={item.id}>
            <div>
              <strong>{item.asks}</strong>
              <span className="quiet">{item.how}</span>
              {wrong(item.id) && (
                <span className={shared.wrong} role="alert">
                  {wrong(item.id)}
                </span>
              )}
            </div>
            {item.unit ? (
              <label className={classes.ohms}>
                <input
                  className="mono"
                  inputMode="decimal"
                  aria-label={`${item.asks}, ohms`}
                  value={found[item.id] ?? ""}
                  onChange={(event) => set({ ...found, [item.id]: event.currentTarget.value })}
                />
                Ω
              </label>
            ) : (
              <Choice
                hideLabel
                label={item.asks}
                value={found[item.id] ?? ""}
                onChange={(value) => set({ ...found, [item.id]: value })}
                data={[
                  { value: "good", label: item.good },
                  { value: "bad", label: item.bad },
                ]}
              />
            )}
          </li>
        ))}
      </ol>
      <Unplaced error={save.error} placed={page.data?.items.map((item) => item.id)} />
      <Button type="submit" fullWidth size="lg" disabled={!answered} loading={save.isPending}>
        Keep the check
      </Button>
    </form>
  );
}

const entryOf = (found: Record<string, string>) =>
  Object.fromEntries(
    Object.entries(found)
      .filter(([, value]) => value.trim() !== "")
      .map(([key, value]) => [key, typedNumber(value)]),
  );
