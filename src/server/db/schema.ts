/** Every table. Times are UTC in milliseconds. */
export * from "./siteTables";
export * from "./lockTables";
export * from "./handoverTables";
export * from "./libraryTables";
export * from "./boardTables";
export * from "./accessTables";
export * from "./crewTables";
