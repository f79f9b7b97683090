/**
 * The house: which room may use which. Core's rooms stand in one list, lowest first; a room may use those before it and
 * nothing after it, so no circle can come about. A new room takes its place in the list; a new arrow upwards fails.
 */
const CORE_ROOMS = [
  "units",
  "people",
  "flow",
  "energy",
  "fire",
  "plant",
  "refusal",
  "accounts",
  "muster",
  "alarm",
  "ledger",
  "atmosphere",
  "gear",
  "box",
  "calc",
  "network",
  "calc/calculators",
  "request",
  "requirement",
  "trace",
  "losses",
  "barrier",
  "judge",
  "cut",
  "guard",
  "plan",
  "conflict",
  "words/en",
  "procedure",
  "isolation",
  "permit/kinds",
  "permit/around",
  "hazard",
  "minor",
  "permit/record",
  "permit/people",
  "permit/air",
  "permit/requirements",
  "permit/afterwatch",
  "permit/acts",
  "permit/life",
  "crew",
  "board",
  "job",
  "schedule",
  "kit",
  "lantern",
  "removal",
  "handover",
  "library",
  "rounds",
  "figures",
  "access",
  "calendar",
];

/** The server's, likewise: what is below knows nothing of what is above. Rooms on one line may use one another. */
const SERVER_FLOORS = [
  ["runtime", "db"],
  ["people"],
  ["act", "ledger"],
  [
    "plant",
    "gear",
    "hazard",
    "photos",
    "box",
    "isolation",
    "permit",
    "job",
    "figures",
    "paper",
    "handover",
    "library",
    "muster",
    "crew",
    "access",
  ],
  ["board", "lists"],
  ["acts"],
  ["demo"],
];

const inRoom = (layer, room) => `^src/${layer}/${room}/[^/]+$`;

const coreRules = CORE_ROOMS.map((room, index) => ({
  name: `core/${room} uses a room above it`,
  severity: "error",
  from: { path: inRoom("core", room), pathNot: "\\.test\\.ts$" },
  to: { path: CORE_ROOMS.slice(index + 1).map((above) => inRoom("core", above)) },
})).filter(({ to }) => to.path.length > 0);

const serverRules = SERVER_FLOORS.flatMap((rooms, index) => {
  const above = SERVER_FLOORS.slice(index + 1).flat();
  if (above.length === 0) return [];
  return [
    {
      name: `server/${rooms.join(", ")} use a floor above`,
      severity: "error",
      from: { path: rooms.map((room) => `^src/server/${room}/`) },
      to: { path: above.map((room) => `^src/server/${room}/`) },
    },
  ];
});

/** @type {import("dependency-cruiser").IConfiguration} */
const config = {
  forbidden: [
    { name: "no circles of files", severity: "error", from: {}, to: { circular: true } },
    {
      name: "a room that is not in the list",
      severity: "error",
      from: { path: "^src/", pathNot: "\\.test\\.ts$" },
      to: { path: "^src/core/.+/", pathNot: CORE_ROOMS.map((room) => inRoom("core", room)) },
    },
    {
      name: "core uses nothing of ours outside core",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: { path: "^src/", pathNot: "^src/core/" },
    },
    {
      name: "the server does not know the screens",
      severity: "error",
      from: { path: "^src/server/" },
      to: { path: "^src/(ui|app|cli)/" },
    },
    {
      name: "components take only types from elsewhere",
      severity: "error",
      from: { path: "^src/(ui|workers)/" },
      to: { path: "^src/(server|app|cli)/" },
    },
    ...coreRules,
    ...serverRules,
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    includeOnly: "^src/",
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js", ".mjs", ".css"] },
    cache: { folder: ".lantern/cache/graph" },
  },
};
export default config;
