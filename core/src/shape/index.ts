/** What documents and stored rows must look like: checked before anything is computed from them or kept. */
export { HOLD_NAMES, ODD_NAMES } from "./choice-fields.ts";
export { ALL_DEFECTS, DEFECT_CODES, type DefectClass, type DefectCode } from "./defects.ts";
export { EQUIPMENT_KINDS, EQUIPMENT_SHAPES, equipmentFactsShape } from "./equipment.ts";
export { fitRowShape, fitSpecShape } from "./fit-row.ts";
export { FOIL_SHAPES } from "./foil.ts";
export { HOUSE_SHAPES, houseShape } from "./house.ts";
export { MOST } from "./limits.ts";
export { linkSpecShape } from "./link.ts";
export { measureShape } from "./measure.ts";
export { MEET_MODES, meetShape, meetSpecShape, NUMBERINGS, PIN_KINDS } from "./meeting.ts";
export { panelShape } from "./panel.ts";
export { pricingFields } from "./price.ts";
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
export { READING, readingShape, TEST_STATES, TEST_UNITS } from "./test-item.ts";
