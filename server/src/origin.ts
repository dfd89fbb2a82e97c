/** Scheme, host and port in one spelling; undefined where a text is not just that. */
export function plainOrigin(text: string): string | undefined {
  if (!/^https?:\/\/[^/?#@\\\s]+$/i.test(text)) return undefined;
  try {
    const url = new URL(text);
    return url.username === "" && url.password === "" ? url.origin : undefined;
  } catch {
    return undefined;
  }
}
