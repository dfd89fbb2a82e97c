import { useRef } from "react";

/** Does some work that takes a while; asked for again meanwhile, it is not done twice. */
export type Once = (work: () => Promise<unknown>) => void;

/** @returns what does one piece of work at a time and leaves out the others; whether it went well is told by the work itself */
export function createOnce(): Once {
  let isBusy = false;
  return (work) => {
    if (isBusy) return;
    isBusy = true;
    const over = () => {
      isBusy = false;
    };
    work().then(over, over);
  };
}

/** For a form: what is sent by a press is not sent again by the next, before it was answered. */
export function useOnce(): Once {
  const once = useRef<Once>(undefined);
  once.current ??= createOnce();
  return once.current;
}
