// Biome does the linting; this one rule needs types, which Biome does not have.
import tseslint from "typescript-eslint";

export default tseslint.config({
  files: ["src/**/*.{ts,tsx}"],
  ignores: ["src/api/schema.ts"],
  languageOptions: { parser: tseslint.parser, parserOptions: { projectService: true } },
  plugins: { "@typescript-eslint": tseslint.plugin },
  rules: { "@typescript-eslint/no-floating-promises": "error" },
});
