// What takes longest begins first, so that no lane is left with it at the end; nothing is known of a fresh clone's times.
import Sequencer from "@jest/test-sequencer";

const RANKS = [/\/hard\/|\/src\//, /bin-\d/, /server-\d/, /packing-\d|solver-\d/, /core-\d/];
const rank = (path) => {
  const at = RANKS.findIndex((r) => r.test(path));
  return at < 0 ? RANKS.length : at;
};

export default class extends Sequencer {
  sort(tests) {
    return [...tests].sort((a, b) => rank(a.path) - rank(b.path) || a.path.localeCompare(b.path));
  }
}
