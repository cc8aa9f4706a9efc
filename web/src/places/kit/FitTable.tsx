import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { Fit } from "../../api/client";
import { useReference } from "../../api/queries";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./FitTable.module.css";

const NAMES: Record<string, string> = {
  "plugged-in": "Plugged in",
  installation: "Installation",
  origin: "Origin",
};

const isWrongKind = (fit: Fit) => fit.problems.some((p) => p.code === "wrong-kind");

/** Purpose by place, for a supply system of the crew's; a tap on one says why. */
export function FitTable({ fits }: { fits: Fit[] }) {
  const reference = useReference().data;
  const practices = useReference().data?.practices ?? [];
  const keys = [...new Set(fits.map((f) => `${f.practice} ${f.system}`))];
  const [chosen, choose] = useState<string | null>(null);
  const [open, show] = useState<string | null>(null);
  const key = chosen ?? keys[0];
  const here = fits.filter((f) => `${f.practice} ${f.system}` === key);
  const asked = here.find((f) => `${f.purpose} ${f.place}` === open);
  if (!reference) return null;
  return (
    <>
      <NativeSelect
        aria-label="Supply system"
        value={key}
        onChange={(event) => choose(event.currentTarget.value)}
        data={keys.map((k) => {
          const fit = fits.find((f) => `${f.practice} ${f.system}` === k);
          const practice = practices.find((p) => p.id === fit?.practice);
          return { value: k, label: `${fit?.system_title}, ${practice?.name ?? fit?.practice}` };
        })}
      />
      <table className={classes.fits}>
        <thead>
          <tr>
            <td />
            {reference.places.map((place) => (
              <th key={place.id} scope="col">
                {NAMES[place.id]}
                <span>category {place.category}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {reference.purposes.map((purpose) => (
            <tr key={purpose.id}>
              <th scope="row">{purpose.title}</th>
              {reference.places.map((place) => {
                const fit = here.find((f) => f.purpose === purpose.id && f.place === place.id);
                const id = `${purpose.id} ${place.id}`;
                if (!fit) return <td key={id} />;
                return (
                  <td key={id}>
                    <button
                      type="button"
                      aria-expanded={open === id}
                      aria-label={`${purpose.title}, ${NAMES[place.id]}: ${fit.fit ? "fit" : isWrongKind(fit) ? "wrong kind, not fit" : "not fit"}, why`}
                      onClick={() => show(open === id ? null : id)}
                    >
                      {isWrongKind(fit) ? (
                        <span className={classes.wrongKind}>wrong kind</span>
                      ) : (
                        <>
                          <VerdictShape kind={fit.fit ? "correct" : "void"} size={18} />
                          {fit.fit ? "Fit" : "Not fit"}
                        </>
                      )}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div className={classes.why} role="status">
        {asked ? (
          <>
            <strong>
              {reference.purposes.find((p) => p.id === asked.purpose)?.title},{" "}
              {reference.places.find((p) => p.id === asked.place)?.meaning}: {asked.fit ? "fit" : "not fit"}
            </strong>
            <ul>
              {[...asked.problems, ...asked.warnings].map((f) => (
                <li key={f.code + f.text}>{f.text}</li>
              ))}
              {asked.fit && asked.warnings.length === 0 && <li>No problem found.</li>}
            </ul>
          </>
        ) : (
          <span className="quiet">Tap one for the reasons.</span>
        )}
      </div>
    </>
  );
}
