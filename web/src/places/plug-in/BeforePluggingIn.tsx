import { Button, Modal, NativeSelect, Text } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Equipment, OutletLine } from "../../api/client";
import { lastPoints } from "../../api/lastPoints";
import { useEquipment, useOutlets } from "../../api/queries";
import starting from "../../parts/Begin.module.css";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { EquipmentForm } from "./EquipmentForm";
import { StrangeOutlet } from "./StrangeOutlet";

/** What is plugged in, and into which outlet; either may be new here. */
export function BeforePluggingIn() {
  const equipment = useEquipment();
  const outlets = useOutlets();
  const navigate = useNavigate();
  const [thing, setThing] = useState("");
  const [outlet, setOutlet] = useState("");
  const [adding, setAdding] = useState<"thing" | "change" | "outlet" | null>(null);
  const failed = [equipment, outlets].find((q) => q.isError && !q.data);
  if (failed) return <Failure error={failed.error} retry={() => failed.refetch()} />;
  const chosen = equipment.data?.find((one) => one.id === thing);
  const all = outlets.data ?? [];
  const measured = lastPoints().flatMap((id) => all.filter((o) => o.id === id));
  const rest = all.filter((o) => !measured.includes(o));
  const sites = [...new Set(rest.map((o) => o.site))];
  return (
    <Page
      title="Before plugging in"
      back={["/today", "Today"]}
      busy={equipment.isPending || outlets.isPending}
    >
      <form
        className={starting.form}
        onSubmit={(event) => {
          event.preventDefault();
          navigate(`/plug-in/${outlet}/${thing}`);
        }}
      >
        <Text size="lg">
          Before a van, a stall or a machine is plugged into an outlet you do not know: what it needs, and
          whether the outlet has it.
        </Text>
        <NativeSelect
          label="What is plugged in"
          value={thing}
          onChange={(event) => setThing(event.currentTarget.value)}
          data={[
            { value: "", label: "Choose what is plugged in" },
            ...(equipment.data ?? []).map((e) => ({ value: e.id, label: `${e.label}: ${plateOf(e)}` })),
          ]}
        />
        <Button variant="default" onClick={() => setAdding("thing")}>
          Add equipment
        </Button>
        {chosen && (
          <Button variant="subtle" onClick={() => setAdding("change")}>
            Change {chosen.label}
          </Button>
        )}
        <NativeSelect
          label="Into which outlet"
          value={outlet}
          onChange={(event) => setOutlet(event.currentTarget.value)}
          data={[
            { group: "", items: [{ value: "", label: "Choose an outlet" }] },
            ...(measured.length > 0 ? [{ group: "Last measured", items: measured.map(choice) }] : []),
            ...sites.map((site) => ({
              group: site,
              items: rest.filter((o) => o.site === site).map(choice),
            })),
          ]}
        />
        <Button variant="default" onClick={() => setAdding("outlet")}>
          An outlet that is not on record
        </Button>
        <Button type="submit" className={starting.main} disabled={!thing || !outlet}>
          Check it
        </Button>
      </form>
      <Modal
        opened={adding === "thing" || adding === "change"}
        onClose={() => setAdding(null)}
        title="What is plugged in"
      >
        <EquipmentForm
          {...(adding === "change" && chosen && { thing: chosen })}
          done={(made) => {
            setThing(made.id);
            setAdding(null);
          }}
        />
      </Modal>
      <Modal
        opened={adding === "outlet"}
        onClose={() => setAdding(null)}
        title="An outlet that is not on record"
      >
        <StrangeOutlet
          done={(made) => {
            setOutlet(made.id);
            setAdding(null);
          }}
        />
      </Modal>
    </Page>
  );
}

const choice = (o: OutletLine) => ({
  value: o.id,
  label: o.circuit === o.name ? o.name : `${o.name} (${o.circuit})`,
});

/** "120 V, 13 A", "three lines, 400 V, no neutral, 20 A". */
export function plateOf(e: Equipment): string {
  const lines = e.lines === 1 ? [] : [e.lines === 2 ? "two lines" : "three lines"];
  const volts = [e.volts_between_lines, e.volts_to_neutral].filter((v) => v != null).join("/");
  const neutral = e.lines > 1 && e.volts_to_neutral == null ? ["no neutral"] : [];
  return [...lines, `${volts} V`, ...neutral, `${e.amperes} A`].join(", ");
}
