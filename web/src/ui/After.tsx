import { type ReactNode, startTransition, useEffect, useState } from "react";

/** What comes once the rest of the page stands, in slices between which the page answers. It stands below everything else. */
export function After({ children }: { children: ReactNode }) {
  const [isTime, setTime] = useState(false);
  useEffect(() => startTransition(() => setTime(true)), []);
  return isTime ? children : null;
}
