import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { AlongChain } from "../../../api/client";
import { Display } from "../../practice/Display";
import type { InHand } from "../Freely";
import { How } from "../How";
import type { AtHunt } from "../HuntPlace";

/** In a case one puts the probe on whichever joint one likes, the other one staying on the return. */
export function ChainFreely({ hunt, chain, seen, inHand }: AtHunt & { chain: AlongChain; inHand: InHand }) {
  const [after, go] = useState(chain.elements[0]?.id ?? "");
  const name = chain.elements.find((one) => one.id === after)?.name;
  return (
    <>
      <NativeSelect
        label="The probe is after"
        value={after}
        onChange={(event) => go(event.currentTarget.value)}
        data={chain.elements.map((one) => ({ value: one.id, label: one.name }))}
      />
      <How steps={chain.how} />
      <Display
        entry={{ hunt: hunt.id, at: after, function: "volts", from: "L", to: "N" }}
        tester={inHand.tester}
        ready={inHand.named}
        onCapture={({ value }, typed) =>
          seen({ after, volts: value }, `after ${name}: ${typed} V`, inHand.tester ?? undefined)
        }
      />
    </>
  );
}
