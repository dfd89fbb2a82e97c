import type { FeedSupplier } from "@kobbin/contract";

/** Four simulated suppliers. Every name is invented. */
export const SUPPLIERS: readonly FeedSupplier[] = [
  {
    key: "fennimore",
    name: "Fennimore Parts",
    currency: "EUR",
    shipping: "8.00",
    freeFrom: "50.00",
    daysMin: 2,
    daysMax: 4,
  },
  {
    key: "brindle",
    name: "Brindle & Otter",
    currency: "EUR",
    shipping: "5.50",
    freeFrom: "90.00",
    daysMin: 3,
    daysMax: 6,
  },
  {
    key: "longreach",
    name: "Longreach Components",
    currency: "USD",
    shipping: "18.00",
    freeFrom: "120.00",
    daysMin: 5,
    daysMax: 11,
  },
  { key: "corner", name: "Corner Drawer", currency: "EUR", shipping: "3.90", daysMin: 1, daysMax: 3 },
];
