/** How often a law is tried: briefly in every run, all of it in `npm run nightly`. */
export const often = (briefly: number, atNight: number): number =>
  process.env.KOBBIN_LONG === "yes" ? atNight : briefly;
