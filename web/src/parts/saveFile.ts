/** Saves an open file to this device, named as the format it is in. */
export function saveFile(file: object, name: string): void {
  const kind = (file as { format?: string }).format?.split("/").at(-1) ?? "data";
  const url = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: "application/json" }));
  const link = Object.assign(document.createElement("a"), { href: url, download: `${name}.${kind}.json` });
  link.click();
  URL.revokeObjectURL(url);
}
