import { readFileSync } from "node:fs";
import { defineConfig } from "vitest/config";

const INSIDE = ["three", "preact", "uplot"];

// One script and one style, without a hash in their names: the package puts them into a page.
export default defineConfig({
  build: {
    target: "es2022",
    outDir: "../src/fendra/page/built",
    emptyOutDir: true,
    modulePreload: false,
    chunkSizeWarningLimit: 1000,
    rollupOptions: {
      input: "src/main.tsx",
      output: { entryFileNames: "page.js", assetFileNames: "page[extname]", inlineDynamicImports: true },
    },
  },
  plugins: [
    {
      name: "licences",
      generateBundle() {
        const texts = INSIDE.map((name) => `${name}\n\n${readFileSync(`node_modules/${name}/LICENSE`, "utf8").trim()}\n`);
        this.emitFile({ type: "asset", fileName: "licences.txt", source: texts.join("\n\n") });
      },
    },
  ],
  test: { environment: "node", include: ["test/**/*.test.ts"] },
});
