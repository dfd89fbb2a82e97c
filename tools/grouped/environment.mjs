// Where a group of test files runs: gives the group Jest's state, and keeps how long each file of it took.
import { appendFileSync } from "node:fs";
import { TestEnvironment } from "jest-environment-node";

export default class extends TestEnvironment {
  began = new Map();

  handleTestEvent(event, state) {
    if (event.name === "setup") this.global.KOBBIN_TESTS = state;
    const block = event.describeBlock;
    if (!block?.parent || block.parent.parent || !/\.test\.ts$/.test(block.name)) return;
    if (event.name === "run_describe_start") this.began.set(block.name, Date.now());
    if (event.name === "run_describe_finish" && process.env.KOBBIN_FILE_TIMES)
      appendFileSync(
        process.env.KOBBIN_FILE_TIMES,
        `${JSON.stringify([block.name, (Date.now() - this.began.get(block.name)) / 1000])}\n`,
      );
  }
}
