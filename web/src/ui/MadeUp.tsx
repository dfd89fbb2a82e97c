/** Marks a supplier or house that is made up: its prices are of nobody, and nothing can be bought there. */
export const MadeUp = () => (
  <span className="ml-2 rounded-[3px] border border-rule px-1 text-[12px] font-normal text-look">
    made up
  </span>
);
