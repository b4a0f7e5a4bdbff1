import { defineConfig } from "vite";
import { texts } from "./scripts/texts-plugin.ts";

/**
 * Packages that are not built in, as they bring machine code, or files that they look for beside themselves. The others are:
 * finding some thousand files takes longer than reading a few.
 */
export const LEFT_ALONE = [
  "@node-rs/argon2",
  "css-tree",
  "dejavu-fonts-ttf",
  "pdfkit",
  "fontkit",
  "pdfjs-dist",
  "knex",
  "pg",
  "pg-boss",
  "pino",
];

// The server, the demo and the operator's tool, without the screens: those are built by vite.config.ts.
const ENTRIES = ["start", "web", "demo", "tray"];

export default defineConfig({
  plugins: [texts()],
  resolve: { tsconfigPaths: true },
  ssr: {
    noExternal: true,
    external: LEFT_ALONE,
  },
  publicDir: false,
  build: {
    ssr: true,
    target: "node20",
    outDir: "build/main",
    minify: false,
    rollupOptions: {
      input: {
        ...Object.fromEntries(ENTRIES.map((name) => [name, `src/main/${name}.ts`])),
        "task-worker": "src/mail/aside/task-worker.ts",
      },
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
