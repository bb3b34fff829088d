import { defineConfig } from "@hey-api/openapi-ts";

export default defineConfig({
  input: "./openapi.json",
  output: { path: "src/api/generated", postProcess: ["prettier"] },
  plugins: [
    "@hey-api/typescript",
    { name: "@hey-api/client-fetch", throwOnError: true },
    { name: "@hey-api/sdk", responseStyle: "data" },
  ],
});
