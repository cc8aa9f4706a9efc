import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import classes from "../Hunts.module.css";
import { EMPTY_ELEMENT, type TypedChain, type TypedElement } from "./typed";

const KINDS: { value: TypedElement["kind"]; label: string }[] = [
  { value: "contact", label: "Contact" },
  { value: "fuse", label: "Fuse" },
  { value: "terminal", label: "Terminal" },
  { value: "coil", label: "Coil" },
];

/** The elements of a control chain in order from the feed, with what should be closed now. */
export function ChainForm({ chain, onChange }: { chain: TypedChain; onChange: (chain: TypedChain) => void }) {
  const put = (number: number, change: Partial<TypedElement>) =>
    onChange({
      ...chain,
      elements: chain.elements.map((one, here) => (here === number ? { ...one, ...change } : one)),
    });
  return (
    <>
      <TextInput
        label="Volts at the feed, against the return"
        inputMode="decimal"
        value={chain.supply}
        onChange={(event) => onChange({ ...chain, supply: event.currentTarget.value })}
      />
      {chain.elements.map((one, number) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an element is known by where it stands in the chain
        <fieldset key={number} className={classes.element}>
          <legend>Element {number + 1} from the feed</legend>
          <TextInput
            label="Name"
            value={one.id}
            onChange={(event) => put(number, { id: event.currentTarget.value })}
          />
          <NativeSelect
            label="What it is"
            value={one.kind}
            data={KINDS}
            onChange={(event) =>
              put(number, { kind: event.currentTarget.value as TypedElement["kind"], rated: "" })
            }
          />
          {one.kind === "coil" ? (
            <TextInput
              label="Rated, V"
              inputMode="decimal"
              value={one.rated}
              onChange={(event) => put(number, { rated: event.currentTarget.value })}
            />
          ) : (
            <Checkbox
              size="lg"
              label="Should be closed now"
              checked={one.closed}
              onChange={(event) => put(number, { closed: event.currentTarget.checked })}
            />
          )}
        </fieldset>
      ))}
      <Button
        variant="default"
        onClick={() => onChange({ ...chain, elements: [...chain.elements, EMPTY_ELEMENT] })}
      >
        Add an element
      </Button>
    </>
  );
}
