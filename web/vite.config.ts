import { readFileSync } from "node:fs";
import { defineConfig } from "vitest/config";

const INSIDE = ["three", "preact", "uplot"];
const INSIDE_LIVE = [
  ...INSIDE.slice(0, 2), "@codemirror/autocomplete", "@codemirror/commands", "@codemirror/language", "@codemirror/legacy-modes",
  "@codemirror/lint", "@codemirror/state", "@codemirror/view", "@lezer/common", "@lezer/highlight", "@lezer/lr", "crelt",
  "style-mod", "w3c-keyname", "@marijn/find-cluster-break",
];

// Two pages: one that is a file and runs a design (page), and one that a run serves (live). Each is one
// script and one style, without a hash in their names: the package puts them where they belong.
export default defineConfig(({ mode }) => {
  const isLive = mode === "live";
  const [name, entry, inside] = isLive ? ["live", "src/live/main.tsx", INSIDE_LIVE] : ["page", "src/main.tsx", INSIDE];
  return {
    define: { "process.env.NODE_ENV": JSON.stringify("production") },
    build: {
      target: "es2022",
      outDir: "../src/fendra/page/built",
      emptyOutDir: false,
      modulePreload: false,
      chunkSizeWarningLimit: 1600,
      rollupOptions: {
        input: entry,
        output: { entryFileNames: `${name}.js`, assetFileNames: `${name}[extname]`, inlineDynamicImports: true },
      },
    },
    plugins: [
      {
        name: "licences",
        generateBundle() {
          const texts = inside.map((each) => `${each}\n\n${readFileSync(`node_modules/${each}/LICENSE`, "utf8").trim()}\n`);
          this.emitFile({ type: "asset", fileName: isLive ? "live-licences.txt" : "licences.txt", source: texts.join("\n\n") });
        },
      },
    ],
    test: { environment: "node", include: ["test/**/*.test.ts"] },
  };
});
