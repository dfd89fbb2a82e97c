// A test file ends with its first test that fails, and a test that hangs before the others have hung too: for changes that
// are tried one by one (mutate.ts), where the first is all that is asked for.
import { TestEnvironment } from "jest-environment-node";

export default class extends TestEnvironment {
  hasFailed = false;

  handleTestEvent(event) {
    if (event.name === "test_fn_failure" || event.name === "hook_failure") this.hasFailed = true;
    if (event.name === "test_start" && this.hasFailed) event.test.mode = "skip";
  }
}
