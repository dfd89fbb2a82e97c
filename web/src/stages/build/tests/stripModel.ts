/**
 * From where to where readings are drawn: both limits with a quarter of their distance beyond. With one limit the readings
 * and it; what is more than ten times as far away as the nearest half of them lies at the edge.
 */
export function stripOf(
  values: readonly number[],
  limits: { readonly min?: string | undefined; readonly max?: string | undefined },
): { readonly lo: number; readonly hi: number } {
  const [min, max] = [limits.min, limits.max].map((l) => (l === undefined ? undefined : Number(l)));
  if (min !== undefined && max !== undefined && max > min) {
    const beyond = (max - min) / 4;
    return { lo: min - beyond, hi: max + beyond };
  }
  const at = min ?? max ?? 0;
  const far = values.map((v) => Math.abs(v - at)).sort((a, b) => a - b);
  const middle = far[Math.floor((far.length - 1) / 2)] ?? 0;
  const reach = Math.min(far.at(-1) ?? 0, 10 * middle) * 1.1 || Math.abs(at) / 10 || 1;
  return {
    lo: min === undefined || values.some((v) => v < min) ? at - reach : at - reach / 5,
    hi: max === undefined || values.some((v) => v > max) ? at + reach : at + reach / 5,
  };
}
