import { Choice } from "../../parts/Choice";

/** What a contact reads when it is off: over-range, or joined still. */
export const OpensChoice = (props: { value?: string; onChange: (value: string) => void }) => (
  <Choice
    label="Switched off, it reads"
    {...props}
    data={[
      { value: "over-range", label: "Over-range" },
      { value: "joined", label: "Still joined" },
    ]}
  />
);
