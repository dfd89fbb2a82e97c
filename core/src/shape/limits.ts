/**
 * So many of a kind a run's document holds, and so many a shop, a product or a revision may have: one table for the shape
 * of a document, for what is written down, and for what a backup is judged by. What is accepted can be released, backed up
 * and restored.
 */
export const MOST = {
  /** Boards of a revision. */
  boards: 200,
  /** Places of a board. */
  placements: 500_000,
  /** Lines of a revision's bill. */
  lines: 20_000,
  /** Versions of a revision. */
  variants: 500,
  /** Sums attached to a revision's lines. */
  sums: 1000,
  /** Rows of a product's fit sheet. */
  fits: 200,
  /** Connectors of a product and what is put onto them. */
  meetings: 200,
  /** Links of a product that are to be set. */
  links: 200,
  /** What is known to be wrong with a product. */
  errata: 500,
  /** Marks, pictures, files and designs on a product that may be somebody's. */
  rights: 200,
  /** What owners said of a product. */
  reports: 5000,
  /** Photos of a run. */
  photos: 1000,
  kept: 200,
  /** Foils kept for a product. */
  foils: 500,
  /** Of the shop. */
  houses: 500,
  equipment: 500,
  lessons: 500,
  suppliers: 1000,
  parts: 50_000,
  alternates: 50_000,
  lots: 50_000,
  /** Of all lines of a document. */
  offers: 200_000,
} as const;
