import { useSearchParams } from "react-router";

/** The address's own words: what they are now, and how to set one; an empty one goes. */
export function useParam(): readonly [
  URLSearchParams,
  (key: string, value: string, isStep?: boolean) => void,
] {
  const [params, setParams] = useSearchParams();
  const set = (key: string, value: string, isStep = false) =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old);
        if (value === "") next.delete(key);
        else next.set(key, value);
        return next;
      },
      // a step is gone back from; what is typed is not
      { replace: !isStep },
    );
  return [params, set];
}
