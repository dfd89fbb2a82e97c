import type { StepKind } from "./step.ts";

/** What is to be minded at a step, one calm sentence each; data sheets, local law and licensed persons come first (domain.md 10). */
export const STEP_CAUTIONS: Readonly<Record<StepKind, string>> = {
  kit: "Wrist strap and mat before a bag is opened; moisture-sensitive parts stay in theirs.",
  "program-before": "Wrist strap and mat; chips only touched at their edges.",
  print:
    "Gloves, nothing to eat or drink beside the paste, hands washed after it; paste with lead kept from children and pregnant people.",
  place: "Wrist strap and mat; light enough and a rest for the eyes every half hour.",
  heat: "Fumes led away or filtered; never left alone, an extinguisher within reach; what heats here never holds food again; no cell is on the board.",
  turn: "Only when the solder is firm, and by the edges.",
  iron: "Fumes are led away; the iron burns and lights fires: stand, heat-proof mat, never left alone.",
  trim: "Cut leads fly: hold the end, point it away, eyes covered; then shake the board out and look.",
  clean:
    "Gloves and air as the cleaner’s sheet asks; nothing that sparks beside a solvent; dry before power.",
  depanel: "Glass dust harms lungs: no dry sawing without extraction and a mask; edges cut fingers.",
  mechanical: "Screws by hand first; nothing metal below that could touch.",
  inspect: "A magnifier with a stand; look up now and then.",
  program: "Only the board and its lead on the bench; nothing that moves or heats is connected.",
  test: "Current limit first, one hand; mains, motion and heat only disconnected or with somebody competent beside it.",
  seal: "Nothing is closed over what was not tested; cells go in last and the right way round.",
};

/** Parts whose mark means the opposite of what the same mark means on others of the step. */
export function trapsOf(
  lines: readonly { readonly refs: readonly string[]; readonly package: string }[],
): string[] {
  const isTantalum = (l: { readonly package: string }) => /TANT|CASE-[A-E]\b/i.test(l.package);
  const tantalum = lines.filter((l) => isTantalum(l));
  const diodes = lines.filter((l) => !isTantalum(l) && l.refs.some((r) => /^D\d/i.test(r)));
  const cans = lines.filter((l) => /ELEC|RADIAL/i.test(l.package) && l.refs.some((r) => /^C\d/i.test(r)));
  const names = (list: typeof lines) => list.flatMap((l) => l.refs).join(", ");
  return [
    ...(tantalum.length > 0 && (diodes.length > 0 || cans.length > 0)
      ? [
          `The bar of ${names(tantalum)} is plus; ${diodes.length > 0 ? `that of ${names(diodes)} is the cathode` : `the stripe of ${names(cans)} is minus`}.`,
        ]
      : []),
  ];
}
