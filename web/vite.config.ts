/// <reference types="node" />
import { readFileSync } from "node:fs";
import react from "@vitejs/plugin-react";
import license, { type Dependency } from "rollup-plugin-license";
import { defineConfig } from "vite";

const SERVER = "http://127.0.0.1:8000";
const FONTS = ["atkinson-hyperlegible-next", "atkinson-hyperlegible-mono"];

/** What is shipped from others, each with its licence; fonts come in through styles, which no bundler counts. */
function notices(libraries: Dependency[]): string {
  const told = libraries.map((d) => `${d.name} ${d.version}, ${d.license}\n\n${d.licenseText ?? ""}`);
  const fonts = FONTS.map(
    (name) => `${name}\n\n${readFileSync(`node_modules/@fontsource-variable/${name}/LICENSE`, "utf8")}`,
  );
  return [...told, ...fonts].map((text) => text.trim()).join(`\n\n${"=".repeat(72)}\n\n`);
}

export default defineConfig({
  plugins: [
    react(),
    license({ thirdParty: { output: { file: "dist/notices.txt", template: (all) => notices(all) } } }),
  ],
  build: { chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  server: { proxy: { "/api": SERVER } },
});
