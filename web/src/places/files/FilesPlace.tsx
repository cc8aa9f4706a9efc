import { Anchor, Button, NativeSelect } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { useBrought, useSitesInUse } from "../../api/queries";
import { Page } from "../../parts/Page";
import { dayAndTimeOf } from "../../reading/dates";
import { BringIn } from "./BringIn";
import classes from "./Files.module.css";

const TABLES = [
  ["readings", "Readings"],
  ["dead-tests", "Dead tests"],
  ["circuits", "Circuits"],
  ["kit", "Kit"],
] as const;
const SORTS: Record<string, string> = {
  record: "Whole record",
  survey: "Survey",
  tests: "Dead tests",
  isolation: "Proof of isolation",
  readings: "Readings",
  "dead-tests": "Dead tests",
  circuits: "Circuits",
  kit: "Kit",
};

/** What leaves as files, and what comes in from them, looked at row by row before anything is written. */
export function FilesPlace() {
  const sites = useSitesInUse();
  return (
    <Page title="Files" back={["/record", "Record"]} busy={sites.isPending}>
      <div className={classes.columns}>
        <section aria-labelledby="files-in">
          <h2 id="files-in">Bring in</h2>
          <BringIn sites={sites.data ?? []} />
        </section>
        <div>
          <SaveSection sites={sites.data ?? []} />
          <BroughtList />
        </div>
      </div>
    </Page>
  );
}

function SaveSection({ sites }: { sites: { id: string; name: string }[] }) {
  const [site, setSite] = useState("");
  const of = site ? `/api/sites/${site}` : "/api";
  return (
    <section aria-labelledby="files-out">
      <h2 id="files-out">Save</h2>
      <NativeSelect
        label="Of"
        value={site}
        onChange={(event) => setSite(event.currentTarget.value)}
        data={[
          { value: "", label: "The whole crew" },
          ...sites.map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      <Button component="a" href={`${of}/record`} variant="default" download mt="sm">
        The whole record
      </Button>
      <p className="quiet">
        Everything that was written down, as one JSON file. Brought in elsewhere it is the same record again.
        Whoever has it can read it all.
      </p>
      <h3>As tables, for a spreadsheet</h3>
      <div className={classes.picks}>
        {TABLES.map(([what, name]) => (
          <Button key={what} component="a" href={`${of}/tables/${what}`} variant="default" download>
            {name}
          </Button>
        ))}
      </div>
    </section>
  );
}

/** Where what is marked as come from a file came from. */
function BroughtList() {
  const brought = useBrought();
  if (!brought.data?.length) return null;
  return (
    <section aria-labelledby="files-brought">
      <h2 id="files-brought">Brought in before</h2>
      <ul className={classes.lines}>
        {brought.data.map((file) => (
          <li key={file.id}>
            <strong>{file.name || "A file without a name"}</strong>
            <span>
              {SORTS[file.what] ?? file.what}, {dayAndTimeOf(file.at)}, by {file.by}
            </span>
            <span className="quiet">
              SHA-256 <code>{file.sha256}</code>
            </span>
            {file.strange > 0 && (
              <span>
                {file.strange === 1 ? "A tester" : `${file.strange} testers`} came with it that nobody has
                said is yours, so what {file.strange === 1 ? "it" : "they"} showed confirms nothing.{" "}
                <Anchor component={Link} to="/kit">
                  Look in Kit
                </Anchor>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
