import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: {
    chunkSizeWarningLimit: 700,
    // Fonts stay files: as data: URLs the content security policy would refuse them.
    assetsInlineLimit: (file) => (/\.woff2?$/.test(file) ? false : undefined),
  },
  server: { proxy: { "/api": "http://127.0.0.1:8710" } },
});
