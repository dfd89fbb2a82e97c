/** What other resources may use of machines and tools. */
export { insertEquipment, manyEquipment } from "./queries.ts";
