/** The one door of the stand-ins. */
export { createStandIns, type StandInOptions } from "./app.ts";
