import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // one file: a phone keeps the whole page for a day without the network
  build: { outDir: "../fahrtwind/api/static", emptyOutDir: true, target: "es2022", chunkSizeWarningLimit: 1000 },
  server: { proxy: { "/api": { target: "http://127.0.0.1:8765", changeOrigin: false } } },
  test: { environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
