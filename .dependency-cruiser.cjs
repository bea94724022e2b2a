/** The import rule of docs/decisions/layout.md: who may know whom. */

/** The core's folders, a concept each, in order: each knows those before it. */
const CORE_ORDER = [
  "units",
  "settings",
  "numeric",
  "reading",
  "maxes",
  "barload",
  "resistance",
  "velocity",
  "track",
  "profile",
  "boxsquat",
  "gear",
  "exercise",
  "recipe",
  "prescribe",
  "contrast",
  "plan",
  "liverules",
  "floor",
  "racks",
  "checks",
  "review",
];
const core = CORE_ORDER.map((name, at) => [name, CORE_ORDER.slice(0, at)]);

/** Beside one another: neither knows the other, whatever the order says. */
const APART = [
  ["barload", "maxes"],
  ["velocity", "maxes"],
  ["velocity", "barload"],
  ["velocity", "resistance"],
];

const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to: { pathNot: allowed, dependencyTypesNot: ["npm", "core", "npm-dev"] },
});

module.exports = {
  forbidden: [
    ...core.map(([name, may]) =>
      only(
        `core-${name}`,
        `^core/${name}/`,
        `^core/(${[name, ...may].join("|")})/`,
        "The core's folders know only those to their left.",
      ),
    ),
    ...APART.map(([name, other]) => ({
      name: `${name}-knows-no-${other}`,
      comment: "Concepts that stand beside one another.",
      severity: "error",
      from: { path: `^core/${name}/`, pathNot: "\\.test\\.tsx?$" },
      to: { path: `^core/${other}/` },
    })),
    {
      name: "core-is-pure",
      comment: "No React, Node, database, clock or chance in the core: not even a package.",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["npm", "core", "npm-dev", "npm-no-pkg", "npm-unknown"] },
    },
    only("device", "^device/", "^(core|device)/", "The device knows the core only."),
    only(
      "db",
      "^db/",
      "^(core|db|device|app/platform)/",
      "The database knows the core; its demo and stand-ins know the device.",
    ),
    only(
      "platform",
      "^app/platform/",
      "^(app/platform|db|core)/",
      "The platform knows nothing in app but itself.",
    ),
    only(
      "workflows",
      "^app/workflows/",
      "^(app/workflows|app/platform|app/forms|db|core|device)/",
      "A workflow knows no page.",
    ),
    {
      name: "workflows-stay-in-their-place",
      comment: "What an athlete brings is put together in lifters; a place knows no other place.",
      severity: "error",
      from: { path: "^app/workflows/([^/]+)/", pathNot: "\\.test\\.tsx?$" },
      to: { path: "^app/workflows/", pathNot: "^app/workflows/($1|lifters)/" },
    },
    only("forms", "^app/forms/", "^(app/forms|core)/", "Forms are shared by browser and server."),
    only("ui", "^app/ui/", "^(app/ui|app/forms|core)/", "Shared parts have plain props."),
    only("offline", "^app/offline/", "^(app/offline|app/forms|core)/", "The tablet's store."),
    only(
      "workers",
      "^app/workers/",
      "^(app/workers|core|device)/",
      "Workers wrap core and device.",
    ),
    only(
      "routes",
      "^app/routes/",
      "^(app/routes|app/ui|app/forms|app/workflows|app/platform|app/workers|app/offline|core|device)/",
      "A route never reaches the database.",
    ),
    {
      name: "routes-stay-in-their-place",
      comment: "A place's components are its own; what two places need goes to app/ui.",
      severity: "error",
      from: { path: "^app/routes/([^/]+)/" },
      to: { path: "^app/routes/", pathNot: "^app/routes/$1/" },
    },
    {
      name: "no-circles",
      comment: "A circle of imports has no layout.",
      severity: "error",
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "\\+types/" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "node", "default", "types"],
    },
  },
};
