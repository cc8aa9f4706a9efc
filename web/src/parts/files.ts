/** Open files: saved to this device, and read from it. */

import { Refusal } from "../api/client";

/** Named as the format it is in. */
export function saveFile(file: object, name: string): void {
  const kind = (file as { format?: string }).format?.split("/").at(-1) ?? "data";
  const url = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: "application/json" }));
  const link = Object.assign(document.createElement("a"), { href: url, download: `${name}.${kind}.json` });
  link.click();
  URL.revokeObjectURL(url);
}

/** What is in a file brought in; a Refusal where it is not JSON. */
export async function readFile(file: File): Promise<Record<string, unknown>> {
  try {
    return JSON.parse(await file.text());
  } catch (error) {
    throw new Refusal(422, [{ path: "", text: `not JSON: ${(error as Error).message}` }]);
  }
}
