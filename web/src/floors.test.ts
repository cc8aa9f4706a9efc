import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { expect, test } from "vitest";

/** What each folder may know of the others; a place knows them all, and of other places only what is shared. */
const MAY_KNOW: Record<string, string[]> = {
  api: [],
  reading: ["api"],
  geometry: ["api", "reading"],
  theme: [],
  parts: ["api", "reading", "geometry", "theme"],
};
const SHARED_BY_PLACES = ["places/bench", "places/site", "places/practice"];
/** It shows what is in hand everywhere. */
const OVER_ALL = "places/today";

const files = readdirSync("src", { recursive: true, encoding: "utf8" }).filter(
  (file) => /\.tsx?$/.test(file) && !file.includes(".test.") && !file.endsWith("schema.d.ts"),
);
const imports = files.flatMap((file) =>
  [...readFileSync(join("src", file), "utf8").matchAll(/from "(\.[^"]*)"/g)].map((found) => ({
    file,
    known: relative("src", join("src", dirname(file), found[1] ?? "")),
  })),
);
const folder = (file: string) => file.split("/")[0] ?? "";
const place = (file: string) => file.split("/").slice(0, 2).join("/");

test("a folder knows only those below it", () => {
  const wrong = imports.filter(({ file, known }) => {
    const below = MAY_KNOW[folder(file)];
    return below && folder(known) !== folder(file) && !below.includes(folder(known));
  });
  expect(wrong).toEqual([]);
  expect(imports.length).toBeGreaterThan(300);
});

test("a place knows of another only what is shared", () => {
  const wrong = imports.filter(
    ({ file, known }) =>
      folder(file) === "places" &&
      folder(known) === "places" &&
      place(known) !== place(file) &&
      place(file) !== OVER_ALL &&
      !SHARED_BY_PLACES.includes(place(known)),
  );
  expect(wrong).toEqual([]);
});

test("what is pure draws nothing", () => {
  const pure = files.filter((file) => ["geometry", "reading"].includes(folder(file)));
  expect(pure.filter((file) => file.endsWith(".tsx"))).toEqual([]);
});
