/** What documents and stored rows must look like: checked before anything is computed from them or kept. */
export { HOLD_NAMES, ODD_NAMES } from "./choice-fields.ts";
export { ALL_DEFECTS, DEFECT_CODES, type DefectClass, type DefectCode } from "./defects.ts";
export { EQUIPMENT_KINDS, EQUIPMENT_SHAPES, equipmentFactsShape } from "./equipment.ts";
export {
  decisionsShape,
  ERRATUM_DECISIONS,
  ERRATUM_HARMS,
  ERRATUM_SHAPES,
  ERRATUM_WAYS,
  erratumSpotShape,
} from "./erratum.ts";
export { fitRowShape, fitSpecShape } from "./fit-row.ts";
export { FOIL_SHAPES } from "./foil.ts";
export { HOUSE_SHAPES, houseShape } from "./house.ts";
export {
  LESSON_LEVELS,
  LESSON_SHAPES,
  LESSON_SURE,
  LONGEST_EVIDENCE,
  LONGEST_TITLE,
  lessonCheckShape,
  ONE_WAY_LETTERS,
  relaxedShape,
} from "./lesson.ts";
export { MOST } from "./limits.ts";
export { linkSpecShape } from "./link.ts";
export { measureShape } from "./measure.ts";
export { MEET_MODES, meetShape, meetSpecShape, NUMBERINGS, PIN_KINDS } from "./meeting.ts";
export { panelShape } from "./panel.ts";
export { pricingFields } from "./price.ts";
export { IMAGE_FITS, programImageShape } from "./program-image.ts";
export { RIGHT_KINDS, RIGHT_SHAPES, RIGHT_STATES, SALE_QUESTIONS } from "./right.ts";
export {
  assemblyShape,
  candidateShape,
  choicesShape,
  optionsShape,
  outcomeShape,
  overridesShape,
  placementShape,
  quoteBasisShape,
  runShape,
} from "./run.ts";
export type { DataShape as Value } from "./shape.ts";
export * from "./shape.ts";
export { lossesShape, ratesShape, rulesShape } from "./shop-fields.ts";
export { besidesShape, pointShape, READING, readingShape, TEST_STATES, TEST_UNITS } from "./test-item.ts";
