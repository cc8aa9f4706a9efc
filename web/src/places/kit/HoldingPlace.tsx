import { Button, NativeSelect, Text } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import client, { answer, type Holding, type HoldingIn } from "../../api/client";
import { keys } from "../../api/keys";
import { useParts, useReference, useTesters } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Toggle } from "../../parts/Toggle";
import { VerdictShape } from "../../parts/VerdictShape";
import { Chain } from "./Chain";
import classes from "./HoldingPlace.module.css";
import shared from "./Kit.module.css";

/** Tester, leads and adapters as one chain: the weakest link is what you hold. */
export function HoldingPlace() {
  const [query] = useSearchParams();
  const testers = useTesters();
  const parts = useParts().data ?? [];
  const kit = useReference().data;
  const reference = useReference().data;
  const [picked, pick] = useState({
    tester: query.get("tester") ?? "",
    leads: "",
    adapters: [] as string[],
    covers: "",
    purpose: "prove-dead",
    place: "installation",
    on: "",
  });
  const tester =
    testers.data?.find((t) =>
      picked.tester ? t.id === picked.tester : t.usual_leads && t.attention.length === 0,
    ) ?? testers.data?.[0];
  const leads = picked.leads || tester?.usual_leads || "";
  const systems = (reference?.practices ?? []).flatMap((p) =>
    p.systems.map((s) => ({ value: `${p.id}|${s.id}`, label: `${s.title}, ${p.name}` })),
  );
  const on = picked.on || systems[0]?.value || "";
  const [practice = "", system = ""] = on.split("|");
  const body = {
    leads: leads || null,
    adapters: picked.adapters,
    tip_covers: picked.covers === "" ? null : picked.covers === "on",
    practice: practice as HoldingIn["practice"],
    purpose: picked.purpose as HoldingIn["purpose"],
    place: picked.place as HoldingIn["place"],
    system: system as HoldingIn["system"],
  };
  const holding = useQuery({
    queryKey: keys.holding(tester?.id, body),
    queryFn: () =>
      answer(
        client.POST("/api/testers/{tester_id}/holding", {
          params: { path: { tester_id: tester?.id ?? "" } },
          body,
        }),
      ),
    enabled: tester !== undefined && system !== "",
    placeholderData: (before: Holding | undefined) => before,
  });
  if (testers.isError && !testers.data)
    return <Failure error={testers.error} retry={() => testers.refetch()} />;
  const of = (role: string) => parts.filter((p) => p.role === role);
  return (
    <Page title="What am I holding?" back={["/kit", "Kit"]}>
      {testers.data?.length === 0 && (
        <Text size="lg" mt="lg">
          Add a tester to the <Link to="/kit">kit</Link> first.
        </Text>
      )}
      {holding.data && <Held holding={holding.data} />}
      {holding.error && <Failure error={holding.error} retry={() => holding.refetch()} />}
      <div className={shared.columns}>
        <section aria-label="Tester in use">
          <h2>Tester in use</h2>
          <NativeSelect
            label="Tester"
            value={tester?.id ?? ""}
            onChange={(event) =>
              pick({ ...picked, tester: event.currentTarget.value, leads: "", covers: "" })
            }
            data={(testers.data ?? []).map((t) => ({ value: t.id, label: t.label }))}
          />
          <NativeSelect
            mt="sm"
            label="Leads"
            value={leads}
            onChange={(event) => pick({ ...picked, leads: event.currentTarget.value, covers: "" })}
            data={[
              ...(tester?.usual_leads ? [] : [{ value: "", label: "Fixed, or none" }]),
              ...of("leads").map((p) => ({ value: p.id, label: p.label })),
            ]}
          />
          <Choice
            label="Tip covers now"
            value={picked.covers}
            onChange={(covers) => pick({ ...picked, covers })}
            data={[
              { value: "", label: "As recorded" },
              { value: "on", label: "On" },
              { value: "off", label: "Off" },
            ]}
          />
          <fieldset className={shared.functions}>
            <legend>Adapters</legend>
            {of("adapter").map((part) => (
              <Toggle
                key={part.id}
                on={picked.adapters.includes(part.id)}
                onToggle={() =>
                  pick({
                    ...picked,
                    adapters: picked.adapters.includes(part.id)
                      ? picked.adapters.filter((a) => a !== part.id)
                      : [...picked.adapters, part.id],
                  })
                }
              >
                {part.label}
              </Toggle>
            ))}
            {of("adapter").length === 0 && <span className="quiet">None in the kit.</span>}
          </fieldset>
        </section>
        <section aria-label="What for">
          <h2>What for</h2>
          <NativeSelect
            label="Purpose"
            value={picked.purpose}
            onChange={(event) => pick({ ...picked, purpose: event.currentTarget.value })}
            data={kit?.purposes.map((p) => ({ value: p.id, label: p.title })) ?? []}
          />
          <NativeSelect
            mt="sm"
            label="Place"
            value={picked.place}
            onChange={(event) => pick({ ...picked, place: event.currentTarget.value })}
            data={kit?.places.map((p) => ({ value: p.id, label: p.meaning })) ?? []}
          />
          <NativeSelect
            mt="sm"
            label="Supply"
            value={on}
            onChange={(event) => pick({ ...picked, on: event.currentTarget.value })}
            data={systems}
          />
          <h2>What a category means</h2>
          <p className={classes.meaning}>
            Where on the installation a part may be used, and so how large a surge and fault current it
            stands. It is not about voltage: each category comes with one.
          </p>
          <dl className={classes.categories}>
            {Object.entries(kit?.categories ?? {}).map(([name, meaning]) => (
              <div key={name}>
                <dt>{name}</dt>
                <dd>{meaning}</dd>
              </div>
            ))}
          </dl>
          <Button component={Link} to="/kit" variant="subtle">
            Back to the kit
          </Button>
        </section>
      </div>
    </Page>
  );
}

function Held({ holding }: { holding: Holding }) {
  const { effective, needs } = holding;
  return (
    <section aria-label="What you hold" className={classes.held}>
      <Chain links={holding.chain} fit={holding.fit} />
      <div className={classes.heldSaid} role="status">
        <VerdictShape kind={holding.fit ? "correct" : "void"} size={40} />
        <div>
          <strong>
            {effective.category ? `Category ${effective.category}` : "No category"},{" "}
            <span className="mono">{effective.voltage ?? "?"} V</span>
          </strong>
          <span>
            {holding.fit ? "Fit" : "Not fit"}. Here it takes category {needs.category}, {needs.voltage} V.
          </span>
          <ul>
            {[...holding.problems, ...holding.warnings].map((f) => (
              <li key={f.code + f.text}>{f.text}</li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
}
