/// <reference types="node" />
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import react from "@vitejs/plugin-react";
import license, { type Dependency } from "rollup-plugin-license";
import { defineConfig } from "vite";
import { compression } from "vite-plugin-compression2";
import { type ManifestOptions, VitePWA } from "vite-plugin-pwa";

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

const manifest: Partial<ManifestOptions> = {
  name: "Even Probe",
  short_name: "Even Probe",
  description: "Says what electrical readings can still mean",
  start_url: "/today",
  display: "standalone",
  background_color: "#1F2428",
  theme_color: "#1F2428",
  icons: [
    { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
    { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
    { src: "/icon-maskable-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
  ],
};

/** Answers of another shape, kept by an older version of the page, are not shown by a newer one. */
const SHAPES = createHash("sha256").update(readFileSync("src/api/openapi.json")).digest("hex").slice(0, 12);

/** In one file: of a file of a few lines the greater part is the asking. */
const OF_MOST_PLACES = { name: "shared", test: /\/src\//, minShareCount: 8 };

export default defineConfig({
  plugins: [
    react(),
    license({ thirdParty: { output: { file: "dist/notices.txt", template: (all) => notices(all) } } }),
    VitePWA({
      registerType: "prompt",
      injectRegister: null,
      manifest,
      workbox: {
        globPatterns: ["**/*.{js,css,html,woff2,svg,png}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/notices/, /^\/trust\.crt/],
        cleanupOutdatedCaches: true,
      },
    }),
    compression({ algorithms: ["gzip", "brotliCompress"], threshold: 1000 }),
  ],
  define: { __SHAPES__: JSON.stringify(SHAPES) },
  build: {
    chunkSizeWarningLimit: 500,
    assetsInlineLimit: 0,
    rolldownOptions: { output: { codeSplitting: { groups: [OF_MOST_PLACES] } } },
  },
  server: { proxy: { "/api": SERVER } },
});
