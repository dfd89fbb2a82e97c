import { useCallback, useState } from "react";

/**
 * Which form of a list is open. One that was saved closes once the server has it: by then another may be open, and stays.
 */
export function useOneOpen() {
  const [open, setOpen] = useState<string>();
  const close = useCallback((own: string) => setOpen((now) => (now === own ? undefined : now)), []);
  return { open, setOpen, close };
}
