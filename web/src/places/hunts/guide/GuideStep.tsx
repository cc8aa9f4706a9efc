import { TextInput } from "@mantine/core";
import { useState } from "react";
import type { GuidedStep } from "../../../api/client";
import { PictureButton } from "../../../parts/PictureButton";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { ProofLine } from "../ProofLine";
import { Steps } from "../Steps";
import { answersOf } from "./answers";
import { Figures } from "./Figures";
import { GoRound } from "./GoRound";

/** One step of a guided hunt: what to do, and what it showed, in one tap or in figures. */
export function GuideStep({ hunt, step, seen, picture, told }: AtHunt & { step: GuidedStep }) {
  const [name, setName] = useState("");
  const byName = step.each !== "" && step.each !== "point";
  const needsName = byName || step.names !== "";
  const [photo, setPhoto] = useState("");
  const tell = (entry: object, said: string) =>
    seen({ step: step.step, ...entry, ...(photo && { photo }) }, `${step.title}: ${said}`);
  const named = needsName && name.trim() ? { name: name.trim() } : {};
  return (
    <>
      <h2 className={classes.where}>{step.title}</h2>
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      <Steps steps={step.do} />
      {step.dead && <ProofLine hunt={hunt} />}
      {step.each === "point" && (
        <GoRound
          points={Object.entries(hunt.names)}
          answers={answersOf(step, told)}
          outcomes={step.outcomes.filter((outcome) => !outcome.of_all)}
          onTap={(point, outcome) =>
            tell({ outcome: outcome.id, name: point }, `${hunt.names[point]}, ${outcome.title}`)
          }
        />
      )}
      {step.picture && (
        <p>
          <PictureButton
            of={step.picture}
            another={photo !== ""}
            onTaken={(image) => setPhoto(picture(image, `Picture, ${step.picture}`))}
          />
          {photo && "One is kept with this step."}
        </p>
      )}
      {needsName && (
        <TextInput
          label={step.names || (step.each === "circuit" ? "Which circuit" : "Which appliance")}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      {step.asks.length > 0 && (
        <Figures
          asks={step.asks}
          ready={!byName || name.trim() !== ""}
          onRecord={(figures, said) =>
            tell({ figures, ...named }, named.name ? `${named.name}, ${said}` : said)
          }
        />
      )}
      <div className={classes.outcomes}>
        {step.outcomes
          .filter((outcome) => outcome.of_all || step.each !== "point")
          .map((outcome) => (
            <button
              key={outcome.id}
              type="button"
              className={classes.outcome}
              disabled={needsName && !outcome.of_all && name.trim() === ""}
              onClick={() => tell({ outcome: outcome.id, ...(!outcome.of_all && named) }, outcome.title)}
            >
              <strong>{outcome.title}</strong>
              {outcome.then && <span className="quiet">→ {outcome.then}</span>}
            </button>
          ))}
      </div>
    </>
  );
}
