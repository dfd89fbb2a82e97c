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
const WITH_LAWS = ["core", "formats", "server", "web"];
const part = (name) => ({
  ...shared,
  displayName: name,
  testMatch: [`<rootDir>/${name}/src/**/*.test.ts`],
  ...(WITH_LAWS.includes(name) ? { setupFiles: ["<rootDir>/tools/fast-check.setup.ts"] } : {}),
});
export default {
  // far more than a loaded machine needs: what hangs is found, how fast it is is measured elsewhere
  testTimeout: 180_000,
  projects: ["core", "formats", "solver", "packing", "bin", "demo", "standins", "server", "web"].map(part),
};
