import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { useSite, useSitesInUse } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SiteChoice } from "../../parts/SiteChoice";
import { circuitsOf } from "../site/circuits";
import classes from "./Labels.module.css";

const WHATS = [
  { value: "schedule", label: "Schedule" },
  { value: "labels", label: "Labels" },
  { value: "lock-tags", label: "Lock tags" },
] as const;
type What = (typeof WHATS)[number]["value"];

const MILLIMETRES = {
  width: "Width of a label",
  height: "Height of a label",
  left: "Left margin",
  top: "Top margin",
  gap: "Between labels",
};
const USUAL = { width: "63.5", height: "29.6", left: "9", top: "15", gap: "0" };

/** What hangs at the installation: looked at here, printed as a PDF. */
export function LabelsPlace() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [what, setWhat] = useState<What>("schedule");
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const site = useSite(siteId || undefined);
  const [board, setBoard] = useState("");
  const [circuit, setCircuit] = useState("");
  const [phone, setPhone] = useState("");
  const [sheet, setSheet] = useState(USUAL);
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  const boards = site.data?.supplies.flatMap((supply) => supply.boards) ?? [];
  const address = addressOf(what, { siteId, board: board || boards[0]?.id || "", circuit, phone, sheet });
  return (
    <Page title="Labels and schedules" back={["/record", "Record"]} busy={sites.isPending}>
      <div className={classes.columns}>
        <div className={classes.form}>
          <Choice label="What to print" value={what} onChange={setWhat} data={[...WHATS]} />
          <SiteChoice sites={sites.data ?? []} chosen={siteId} onChoose={setSite} />
          {what === "schedule" && boards.length > 1 && (
            <NativeSelect
              label="Board"
              value={board}
              onChange={(event) => setBoard(event.currentTarget.value)}
              data={boards.map(({ id, name }) => ({ value: id, label: name }))}
            />
          )}
          {what === "labels" && site.data && (
            <>
              <NativeSelect
                label="Circuit"
                value={circuit}
                onChange={(event) => setCircuit(event.currentTarget.value)}
                data={[{ value: "", label: "All of the site" }, ...circuitsOf(site.data, (id) => id)]}
              />
              <fieldset className={classes.sizes}>
                <legend>Millimetres</legend>
                {(Object.keys(MILLIMETRES) as (keyof typeof USUAL)[]).map((key) => (
                  <TextInput
                    key={key}
                    label={MILLIMETRES[key]}
                    inputMode="decimal"
                    value={sheet[key]}
                    onChange={(event) => setSheet({ ...sheet, [key]: event.currentTarget.value })}
                  />
                ))}
              </fieldset>
            </>
          )}
          {what === "lock-tags" && (
            <TextInput
              label="Telephone on the tag"
              value={phone}
              onChange={(event) => setPhone(event.currentTarget.value)}
              maxLength={40}
              type="tel"
            />
          )}
          {address && (
            <Button component="a" href={address} target="_blank" size="lg">
              Open as PDF
            </Button>
          )}
        </div>
        {address && <Preview key={address} address={address} what={what} />}
      </div>
    </Page>
  );
}

function addressOf(
  what: What,
  given: { siteId: string; board: string; circuit: string; phone: string; sheet: typeof USUAL },
): string | null {
  if (!given.siteId) return null;
  if (what === "schedule") return given.board ? `/api/boards/${given.board}/schedule` : null;
  if (what === "lock-tags")
    return `/api/sites/${given.siteId}/lock-tags?${new URLSearchParams({ phone: given.phone })}`;
  const query = [...Object.entries(given.sheet), ...(given.circuit ? [["circuit", given.circuit]] : [])] as [
    string,
    string,
  ][];
  return `/api/sites/${given.siteId}/labels?${new URLSearchParams(query)}`;
}

/** The first page; where there is none, why. */
function Preview({ address, what }: { address: string; what: What }) {
  const [failed, setFailed] = useState("");
  const picture = `${address}${address.includes("?") ? "&" : "?"}form=png`;
  const ask = async () => {
    const answer = await fetch(picture).catch(() => null);
    const said = (await answer?.json().catch(() => null)) as { problems?: { text: string }[] } | null;
    setFailed(said?.problems?.[0]?.text ?? "It cannot be shown just now. Try again.");
  };
  if (failed)
    return (
      <p role="alert" className={classes.failed}>
        {failed}
      </p>
    );
  return (
    <img
      className={classes.preview}
      src={picture}
      alt={`First page: ${WHATS.find((one) => one.value === what)?.label ?? ""}`}
      onError={() => void ask()}
    />
  );
}
