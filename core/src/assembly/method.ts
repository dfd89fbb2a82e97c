/** How parts are soldered. */
export type Method = "iron" | "stencil" | "house";
