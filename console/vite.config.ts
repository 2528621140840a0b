import { cp } from "node:fs/promises";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** pdf.js fetches fonts, character maps and decoders by name while it draws; they are served from our own house. */
function pdfParts(): Plugin {
  return {
    name: "pdf-parts",
    apply: "build",
    async closeBundle() {
      for (const part of ["cmaps", "standard_fonts", "wasm", "iccs"]) {
        await cp(`node_modules/pdfjs-dist/${part}`, `dist/pdf/${part}`, { recursive: true });
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), pdfParts()],
  build: { target: "es2022", chunkSizeWarningLimit: 2000 },
  server: {
    proxy: { "/api": { target: "http://localhost:7380", headers: { origin: "http://localhost:7380" } } },
  },
});
