// In a group of test files: each is loaded inside a block named by its path, so its hooks are its own.
/** @param files path and how it is loaded */
export async function loadEach(files) {
  const state = globalThis.KOBBIN_TESTS;
  const root = state.currentDescribeBlock;
  for (const [name, load] of files) {
    const block = {
      type: "describeBlock",
      children: [],
      hooks: [],
      mode: undefined,
      name,
      parent: root,
      tests: [],
    };
    root.children.push(block);
    state.currentDescribeBlock = block;
    await load();
    state.currentDescribeBlock = root;
    if (block.children.length === 0) throw new Error(`${name} has no tests`);
  }
}
