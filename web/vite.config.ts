import { readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defaultClientConditions, defineConfig, type Plugin } from "vite";

/** Each script, style and module beside itself once more, compressed, as the server sends them to who takes them so. */
const compressed = (): Plugin => ({
  name: "compressed",
  apply: "build",
  // what lies on the disk at the end: other plugins still write into the bundle before
  async writeBundle({ dir }, bundle) {
    const quality = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } };
    for (const name of Object.keys(bundle).filter((n) => /\.(js|css|wasm)$/.test(n))) {
      const path = join(dir ?? "", name);
      const bytes = await readFile(path);
      await writeFile(`${path}.br`, brotliCompressSync(bytes, quality));
      await writeFile(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    }
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), compressed()],
  resolve: { conditions: ["source", ...defaultClientConditions] },
  worker: { format: "es" },
  server: { proxy: { "/api": { target: process.env.KOBBIN_SERVER ?? "http://127.0.0.1:4181" } } },
  build: {
    sourcemap: true,
    chunkSizeWarningLimit: 1200,
    // what is shared by the same screens lies in pieces of some size: a hundred files of a few lines each are asked for
    // one by one, and that takes longer than to read what is in them
    rolldownOptions: {
      output: {
        // pieces that need each other begin in the order of their imports
        strictExecutionOrder: true,
        codeSplitting: {
          groups: [
            {
              name: "shared",
              test: /\/(core|contract|formats|web)\/src\//,
              minShareCount: 2,
              minSize: 20_000,
              maxSize: 700_000,
              entriesAware: true,
              entriesAwareMergeThreshold: 250_000,
            },
          ],
        },
        chunkFileNames: ({ name }) => `assets/${name.split("~")[0]}-[hash].js`,
      },
    },
  },
});
