/** Colours of mask and ink as boards come, sRGB 0…255; the tone differs from house to house. */
const COLOURS: Readonly<Record<string, readonly [number, number, number]>> = {
  green: [31, 110, 67],
  red: [163, 38, 43],
  blue: [30, 79, 143],
  black: [23, 25, 27],
  white: [242, 242, 238],
  purple: [75, 42, 102],
  yellow: [217, 176, 28],
  // the laminate shows through
  clear: [185, 172, 122],
};

/** Least ratio at which silkscreen counts as readable (domain.md 5.4). */
export const READABLE = 3;

/** Relative luminance of an sRGB colour: 0.2126 R + 0.7152 G + 0.0722 B, linearised (domain.md 5.4). */
function luminance(rgb: readonly [number, number, number]): number {
  const [r, g, b] = rgb.map((v) => {
    const c = v / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/**
 * How far ink stands out from mask: (L₁ + 0.05) / (L₂ + 0.05), the lighter one above (domain.md 5.4).
 *
 * @param mask @param ink names of colours
 * @returns nothing where either is a colour Kobbin does not know: its contrast is not guessed
 * @example contrastOf("white", "white") // 1
 */
export function contrastOf(mask: string, ink: string): number | undefined {
  const [a, b] = [COLOURS[mask.toLowerCase()], COLOURS[ink.toLowerCase()]];
  if (!a || !b) return undefined;
  const [la, lb] = [luminance(a), luminance(b)];
  return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
}
