import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../src/rosy_kettle/api/static",
    emptyOutDir: true,
    // Fonts stay files: the content policy allows no data: fonts.
    assetsInlineLimit: 0,
  },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
});
