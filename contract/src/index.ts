/** What crosses HTTP: schemas of what comes in, types of what goes out. Imports core's types only. */
export * from "./answers.ts";
export * from "./bill.ts";
export * from "./bodies/equipment.ts";
export * from "./bodies/house.ts";
export * from "./bodies/learn.ts";
export * from "./bodies/lines.ts";
export * from "./bodies/owner.ts";
export * from "./bodies/product.ts";
export * from "./bodies/rights.ts";
export * from "./bodies/run.ts";
export * from "./bodies/shop.ts";
export * from "./bodies/source.ts";
export * from "./learned.ts";
export * from "./library.ts";
export * from "./standins.ts";
