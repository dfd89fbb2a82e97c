import { readFileSync } from "node:fs";
import { PARTS } from "./tools/grouped/groups.mjs";

const shared = {
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  moduleFileExtensions: ["ts", "tsx", "js", "mjs", "cjs", "json", "node"],
  testEnvironment: "node",
  testEnvironmentOptions: { customExportConditions: ["source", "node", "node-addons"] },
  ...(process.env.KOBBIN_REACH ? { setupFilesAfterEnv: ["<rootDir>/tools/mutate/reach.setup.mjs"] } : {}),
  // the one package that computes in loops of millions
  transformIgnorePatterns: ["/node_modules/(?!clipper2-ts/)"],
  transform: {
    "^.+\\.tsx?$|/node_modules/clipper2-ts/.+\\.js$": [
      "<rootDir>/tools/jest-transform.mjs",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
        },
        sourceMaps: "inline",
      },
    ],
  },
};
// a whole run loads files in groups (tools/grouped); one by one they are found where they stand
const groups = process.env.KOBBIN_GROUPS ? JSON.parse(readFileSync(process.env.KOBBIN_GROUPS, "utf8")) : {};
const WITH_LAWS = ["core", "formats", "server", "web"];
const part = (name) => ({
  ...shared,
  displayName: name,
  testMatch: groups[name] ?? [`<rootDir>/${name}/src/**/*.test.ts`],
  ...(groups[name] ? { testEnvironment: "<rootDir>/tools/grouped/environment.mjs" } : {}),
  ...(WITH_LAWS.includes(name) ? { setupFiles: ["<rootDir>/tools/fast-check.setup.ts"] } : {}),
});
export default {
  ...(process.env.KOBBIN_GROUPS ? { testSequencer: "<rootDir>/tools/grouped/sequencer.mjs" } : {}),
  // far more than a loaded machine needs: what hangs is found, how fast it is is measured elsewhere
  testTimeout: 180_000,
  // an empty list of places would mean every place
  projects: PARTS.filter((name) => groups[name]?.length !== 0).map(part),
};
