// The one-way rule: texts <- core <- storage, mail <- operations <- web, jobs, cli, demo <- main.
const layers = {
  texts: [],
  core: ["texts"],
  storage: ["texts", "core"],
  mail: ["texts", "core"],
  operations: ["texts", "core", "storage", "mail"],
  jobs: ["texts", "core", "operations"],
  web: ["texts", "core", "operations"],
  cli: ["texts", "core", "operations"],
  demo: ["texts", "core", "operations"],
  main: ["texts", "core", "storage", "mail", "operations", "jobs", "web", "cli", "demo"],
};
const rule = (name, comment, from, to) => ({ name, comment, severity: "error", from, to });

// What core may import besides itself: calendars, time zones, patterns and markup; nothing that reads, waits or prints.
const pureLibraries = ["date-fns", "@date-fns/tz", "chrono-node", "htmlparser2", "re2js"];

module.exports = {
  forbidden: [
    ...Object.entries(layers).map(([layer, lower]) =>
      rule(
        `layer-${layer}`,
        `${layer} may import ${[layer, ...lower].join(", ")} only`,
        { path: `^src/${layer}/`, pathNot: "[.]test[.]tsx?$" },
        { path: "^src/", pathNot: `^src/(${[layer, ...lower].join("|")})/` },
      ),
    ),
    rule(
      "core-is-pure",
      "core imports core and the written list of pure libraries",
      { path: "^src/core/", pathNot: "[.]test[.]ts$" },
      {
        dependencyTypes: ["core", "npm", "npm-dev", "npm-optional", "npm-peer", "npm-no-pkg", "npm-unknown"],
        pathNot: `^node_modules/(${pureLibraries.join("|")})/`,
      },
    ),
    rule("core-resolves", "every import of core resolves", { path: "^src/core/" }, { couldNotResolve: true }),
    rule(
      "one-door",
      "operations are entered by their index only",
      { path: "^src/(web|jobs|cli|demo)/" },
      { path: "^src/operations/", pathNot: "/index[.]server[.]ts$" },
    ),
    rule(
      "sql-in-storage",
      "only storage speaks to the database driver",
      { path: "^src/", pathNot: "^src/storage/" },
      { path: "^(node_modules/(pg|pg-cursor|knex|pg-boss)/|src/storage/base/knex-of[.]ts$)" },
    ),
    rule(
      "ui-has-no-data",
      "a part of the interface fetches nothing",
      { path: "^src/web/ui/" },
      { path: "^src/", pathNot: "^src/(web/ui|core|texts)/" },
    ),
    rule(
      "migrations-frozen",
      "a migration imports no app code",
      { path: "^src/storage/migrations/\\d" },
      { path: "^src/" },
    ),
    rule(
      "no-test-code",
      "the application imports no test code",
      { path: "^src/", pathNot: "[.]test[.]tsx?$" },
      { path: "^tests/" },
    ),
    rule("no-cycle", "no import cycles", {}, { circular: true }),
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    exclude: { path: "[+]types/" },
  },
};
