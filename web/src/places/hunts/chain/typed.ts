/** A control chain as it is typed, and as the server takes it. */

import type { HuntIn } from "../../../api/client";
import { typedNumber } from "../../../reading/typedNumber";

type Chain = NonNullable<HuntIn["chain"]>;
type Kind = Chain["elements"][number]["kind"];
export type TypedElement = { id: string; kind: Kind; closed: boolean; rated: string };
export type TypedChain = { supply: string; elements: TypedElement[] };
export const EMPTY_ELEMENT: TypedElement = { id: "", kind: "contact", closed: true, rated: "" };

/** Text that is no number is sent as it is: the server says what is wrong with it. */
export const chainOf = ({ supply, elements }: TypedChain): Chain => ({
  supply_v: typedNumber(supply) as number,
  elements: elements.map(({ id, kind, closed, rated }) => ({
    id: id.trim(),
    kind,
    closed,
    ...(kind === "coil" && rated.trim() !== "" && { rated_v: typedNumber(rated) as number }),
  })),
});

/** Whether nothing of it is left to be typed. */
export const isTyped = ({ supply, elements }: TypedChain): boolean =>
  supply.trim() !== "" && elements.every((one) => one.id.trim() !== "");
