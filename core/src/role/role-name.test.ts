import { expect, test } from "@jest/globals";
import { roleFromName, wordsOf } from "./role-name.ts";

/** What a name means, as a person would say it: role, side or layer number, or nothing. */
const said = (name: string): string => {
  const g = roleFromName(name);
  if (!g) return "nothing";
  const where =
    g.layerNumber !== undefined && !g.side
      ? `L${g.layerNumber}`
      : g.side === "inner"
        ? `inner ${g.index}`
        : (g.side ?? "");
  return `${g.role} ${where}`.trim() + (g.doubt ? " ?" : "");
};

// one sentence a case: the name, and what it says; a mark of question where it may be otherwise
test.each([
  // glued or joined by case, digits, dots
  ["TopLayer.gbr", "copper top"],
  ["BottomLayer.gbr", "copper bottom"],
  ["boardBottomMask.gbr", "mask bottom"],
  ["lampTopPaste.gbr", "paste top"],
  ["topmask.art", "mask top"],
  // one letter of a side before a word that is known, glued; other letters are the board's
  ["fmask.gbr", "mask top"],
  ["bmask.gbr", "mask bottom"],
  ["tsilk.gbr", "legend top"],
  ["xmask.gbr", "mask"],
  // an ending that is a side, beside what the rest of the name says
  ["lamp.top", "copper top"],
  ["lamp.bot", "copper bottom"],
  ["lamp-silk.top", "legend"],
  // a map or a guide is a drawing only of the drills
  ["guide_top.gbr", "copper top"],
  ["drill_guide.gbr", "drawing"],
  ["map_top_copper.gbr", "copper top"],
  ["bottomsilk.pho", "legend bottom"],
  ["kilnwatchtopsilkscreen.gbr", "legend top"],
  ["FMask.gbr", "mask top"],
  ["BCu.gbr", "copper bottom"],
  ["proj.top.copper.gbr", "copper top"],
  ["PCB1_TOP_SOLDERMASK.GBR", "mask top"],
  // paste before mask
  ["top_paste_mask.gbr", "paste top"],
  ["PasteMaskBottom.gbr", "paste bottom"],
  ["SolderPasteTop.gbr", "paste top"],
  ["top_stencil.gbr", "paste top"],
  // resist, overlay, legend
  ["SolderResistTop.gbr", "mask top"],
  ["resist_bot.ger", "mask bottom"],
  ["TopOverlay.gbr", "legend top"],
  ["bottom-legend.gbr", "legend bottom"],
  ["Solder_Stop_Top.gbr", "mask top"],
  // no copper
  ["TopAdhesive.gbr", "unknown top ?"],
  ["f_adhes.gbr", "unknown top ?"],
  ["bottom_glue.gbr", "unknown bottom ?"],
  ["peelable_top.gbr", "unknown top ?"],
  ["carbon-bottom.gbr", "unknown bottom ?"],
  ["F_CrtYd.gbr", "drawing top"],
  ["top_courtyard.gbr", "drawing top"],
  ["Assembly_Top.gbr", "drawing top"],
  ["top_fabrication.gbr", "drawing top"],
  ["Documentation.gbr", "drawing"],
  ["drill_map.gbr", "drawing"],
  // layer numbers, from the top and among the inner ones
  ["brd-l1.gbr", "copper top"],
  ["brd-l2.gbr", "copper L2"],
  ["board_L04.art", "copper L4"],
  ["Layer3.gbr", "copper L3"],
  ["signal_2.gbr", "copper L2"],
  ["In1_Cu.gbr", "copper inner 1"],
  ["InnerLayer2.gbr", "copper inner 2"],
  ["mid_layer_3.gbr", "copper inner 3"],
  ["x.g2", "copper inner 2"],
  ["plane 1.gbr", "copper inner 1 ?"],
  // outlines and scores
  ["BoardOutline.gbr", "profile"],
  ["edge.cuts.gbr", "profile"],
  ["Umriss.gbr", "profile"],
  ["v-score.gbr", "score"],
  ["VCut.gbr", "score"],
  // old words
  ["component_side.gbr", "copper top"],
  ["solder_side.gbr", "copper bottom"],
  ["solder.gbr", "copper bottom ?"],
  ["top_solder.gbr", "mask top ?"],
  ["oben.gbr", "copper top"],
  // words that only look like one
  ["laptop.gbr", "nothing"],
  ["stopwatch.gbr", "nothing"],
  ["botany.gbr", "nothing"],
  ["drawing17.art", "drawing"],
  ["b.gbr", "copper bottom"],
  ["rev_b.gbr", "copper bottom"],
  ["lamp_b.gbr", "nothing"],
  ["0001.gbr", "nothing"],
  // a name that says two things
  ["top_bottom.gbr", "nothing"],
  // two roles of one weight: neither is taken for sure
  ["mask_silk_top.gbr", "mask top ?"],
  ["silk_mask_top.gbr", "legend top ?"],
  // the heavier speaks, in whichever order
  ["mask_copper_top.gbr", "mask top"],
  ["copper_mask_silk_top.gbr", "mask top ?"],
  ["silk_paste_mask_top.gbr", "paste top"],
  // a word says more of the side than a letter, in whichever order
  ["copper_f_bottom.gbr", "copper bottom"],
  ["copper_bottom_f.gbr", "copper bottom"],
  ["top.gbl", "copper bottom ?"],
  ["topmask.gtl", "copper top ?"],
])("%s reads as %s", (name, want) => {
  expect(said(name)).toBe(want);
});

test("words that every file of the drop has are the board's own name", () => {
  expect(said("stencil-tester-top.gbr")).toBe("paste top");
  expect(roleFromName("stencil-tester-top.gbr", new Set(["stencil", "tester"]))).toMatchObject({
    role: "copper",
    side: "top",
  });
});

test.each([
  ["boardBottomMask.gbr", "board bottom mask"],
  ["PCB1_TOPSilk2.gbr", "pcb 1 top silk 2"],
  ["x-F_Cu.gbr", "x f cu"],
  ["TopSolderMask.GTS", "top soldermask"],
])("the words of %s are %s", (name, words) => {
  expect(wordsOf(name).join(" ")).toBe(words);
});
