import { expandRefs } from "@kobbin/core";

/** References as they are typed, ranges among them; or what of it is none, and why. */
export function typedRefs(text: string): { readonly refs: readonly string[] } | { readonly wrong: string } {
  const { refs, bad, beside } = expandRefs(text);
  const [first] = bad;
  if (first) return { wrong: `“${first.text}”: ${first.why}.` };
  if (beside.length > 0) return { wrong: `“${beside[0]}” is no reference.` };
  return { refs };
}
