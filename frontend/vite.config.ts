import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import license from "rollup-plugin-license";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // Whose work ships in the bundle, with the text of each licence.
    license({ thirdParty: { includePrivate: false, output: "../src/entrick/licences/bundle.txt" } }),
  ],
  resolve: {
    alias: { "@fonts": fileURLToPath(new URL("../src/entrick/fonts", import.meta.url)) },
  },
  build: {
    outDir: "../src/entrick/web/static",
    emptyOutDir: true,
    // Tells which files a view needs; the bench weighs them.
    manifest: true,
    // The page's Content-Security-Policy allows no inline scripts and no data: scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  test: { include: ["tests/**/*.test.ts"], environment: "node" },
  server: { proxy: { "/api": "http://127.0.0.1:8400" }, fs: { allow: [".."] } },
});
