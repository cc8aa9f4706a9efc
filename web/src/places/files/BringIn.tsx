import { Button, FileButton, NativeSelect } from "@mantine/core";
import { useState } from "react";
import classes from "./Files.module.css";
import { RecordFile } from "./RecordFile";
import { RowsFile } from "./RowsFile";
import type { What } from "./send";

const WHATS: { value: What; label: string }[] = [
  { value: "readings", label: "Readings" },
  { value: "dead-tests", label: "Dead tests" },
  { value: "circuits", label: "Circuits" },
  { value: "kit", label: "Kit" },
  { value: "record", label: "Whole record" },
];

/** A file is chosen; what would come of it is shown; then it is brought in. */
export function BringIn({ sites }: { sites: { id: string; name: string }[] }) {
  const [what, setWhat] = useState<What>("readings");
  const [site, setSite] = useState("");
  const [picked, setPicked] = useState<{ file: File; number: number } | null>(null);
  const choose = (next: What) => {
    setWhat(next);
    setPicked(null);
  };
  const file = picked?.file;
  return (
    <>
      <NativeSelect
        label="What is in the file"
        value={what}
        onChange={(event) => choose(event.currentTarget.value as What)}
        data={WHATS}
      />
      {what !== "record" && what !== "kit" && (
        <NativeSelect
          label="Where it belongs"
          mt="sm"
          value={site}
          onChange={(event) => setSite(event.currentTarget.value)}
          data={[
            { value: "", label: "To the site each row names" },
            ...sites.map(({ id, name }) => ({ value: id, label: name })),
          ]}
        />
      )}
      <p className={classes.pick}>
        <FileButton
          accept={what === "record" ? ".json,application/json" : ".csv,.tsv,.txt,text/csv"}
          onChange={(chosen) =>
            chosen && setPicked((before) => ({ file: chosen, number: (before?.number ?? 0) + 1 }))
          }
        >
          {(props) => (
            <Button {...props} variant={file ? "default" : "filled"}>
              {file ? "Choose another file" : "Choose a file"}
            </Button>
          )}
        </FileButton>
        {file && <strong>{file.name}</strong>}
      </p>
      {!file && (
        <p className="quiet">
          {what === "record"
            ? "A record saved by this program, of a site or of a crew."
            : "A table saved as CSV, UTF-8, with one line of headers. Nothing is written before you have seen what would come of every row."}
        </p>
      )}
      {file && what === "record" && <RecordFile key={picked.number} file={file} />}
      {file && what !== "record" && (
        <RowsFile key={`${picked.number} ${site}`} table={what} file={file} site={site || null} />
      )}
    </>
  );
}
