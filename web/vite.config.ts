import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defaultClientConditions, defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ["source", ...defaultClientConditions] },
  worker: { format: "es" },
  server: { proxy: { "/api": { target: process.env.KOBBIN_SERVER ?? "http://127.0.0.1:4181" } } },
  build: { sourcemap: true, chunkSizeWarningLimit: 1200 },
});
