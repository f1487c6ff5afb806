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
    rolldownOptions: {
      output: {
        codeSplitting: {
          includeDependenciesRecursively: false,
          // What only some pages need stays out of the first load.
          groups: [
            {
              name: "drawing",
              test: /node_modules\/(d3-|internmap)|src\/(ui\/(Plot|Strip|Bowl)|lib\/stripMap)/,
            },
            {
              name: "finding",
              test: /node_modules\/(downshift|compute-scroll|prop-types|react-is)|ui\/(useFinder|IngredientPicker)/,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
});
