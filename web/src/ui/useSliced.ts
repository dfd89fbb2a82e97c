import { startTransition, useEffect, useState } from "react";

/**
 * How much of a long list is shown: a screenful at once, the rest in slices between which the page answers.
 *
 * @param total items of the list
 * @param first items of a screenful
 * @param step items of a slice
 */
export function useSliced(total: number, first: number, step: number): number {
  const [shown, setShown] = useState(first);
  useEffect(() => {
    if (shown < total) startTransition(() => setShown(shown + step));
  }, [shown, total, step]);
  return Math.min(shown, total);
}
