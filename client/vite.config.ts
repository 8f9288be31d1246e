import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  server: { proxy: { "/api": "http://127.0.0.1:5080" } },
  // Nothing inline: the server's content security policy allows files only.
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
  test: { include: ["src/**/*.test.{ts,tsx}"] },
});
