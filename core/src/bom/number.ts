/** A maker number as it is compared: capitals, no blanks. */
export const numberKey = (mpn: string): string => mpn.toUpperCase().replace(/\s+/g, "");
