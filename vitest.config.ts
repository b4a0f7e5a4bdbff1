import { defineConfig } from "vitest/config";

const database = [
  "src/storage/**/*.test.ts",
  "src/operations/**/*.test.ts",
  "src/demo/**/*.test.ts",
  "src/cli/**/*.test.ts",
  "src/jobs/run-jobs.test.ts",
];

// It measures how long an answer takes, which has a meaning only where nothing else runs.
const alone = ["tests/processes/hostile-mail.test.ts", "tests/processes/flood.test.ts"];

const withDatabase = {
  globalSetup: ["tests/support/database-setup.ts"],
  testTimeout: 60_000,
  hookTimeout: 120_000,
};

export default defineConfig({
  test: {
    // Much of the time they wait for the database and for threads beside: one worker more than a small machine has cores.
    maxWorkers: 3,
    projects: [
      {
        resolve: { tsconfigPaths: true },
        test: {
          name: "core",
          isolate: false,
          include: ["src/**/*.test.{ts,tsx}", "tests/corpus/*.test.ts", "scripts/*.test.ts"],
          exclude: database,
          // Some look at ten thousand cases; on a machine that others use as well they take many times as long.
          testTimeout: 60_000,
        },
      },
      {
        resolve: { tsconfigPaths: true },
        test: {
          name: "database",
          // Loading the application anew for every file would cost more than its tests.
          isolate: false,
          include: [...database, "tests/pages/*.test.ts"],
          ...withDatabase,
        },
      },
      {
        resolve: { tsconfigPaths: true },
        test: {
          name: "processes",
          include: ["tests/processes/*.test.ts"],
          exclude: alone,
          ...withDatabase,
          // Nearly all of their time they wait for others: `npm test` runs them beside the journeys.
          maxWorkers: 1,
          testTimeout: 300_000,
        },
      },
      {
        resolve: { tsconfigPaths: true },
        test: {
          name: "alone",
          include: alone,
          ...withDatabase,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});
