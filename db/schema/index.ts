export * from "./auth";
export * from "./gear";
export * from "./maxes";
export * from "./plan";
export * from "./session";
export * from "./team";
