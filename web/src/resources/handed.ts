/** Files dropped on a page that does not read them, until the one that does is there. */
let waiting: readonly File[] | Promise<readonly File[]> | undefined;

export function handOver(files: readonly File[] | Promise<readonly File[]>): void {
  waiting = files;
}

/** @returns what was handed over, once */
export function takeHanded(): typeof waiting {
  const files = waiting;
  waiting = undefined;
  return files;
}
