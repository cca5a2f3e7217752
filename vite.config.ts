import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const api = `http://${process.env.RIMEFELL_HOST ?? "127.0.0.1"}:${process.env.RIMEFELL_PORT ?? "4870"}`;

export default defineConfig({
  root: "web",
  plugins: [react(), tailwindcss()],
  worker: { format: "es" },
  build: { outDir: "../dist/web", emptyOutDir: true, target: "es2022", chunkSizeWarningLimit: 1500 },
  server: {
    port: 4871,
    proxy: { "/api": api },
    headers: { "Cross-Origin-Opener-Policy": "same-origin", "Cross-Origin-Embedder-Policy": "require-corp" },
  },
});
