import type { LotRow } from "@kobbin/contract";
import { betweenWords, doubtsOfLot } from "@kobbin/core";
import { useLearned } from "../resources/learned.ts";
import { Mark } from "../ui/Mark.tsx";
import { todayIso } from "../ui/text/dates.ts";

/** What the shop doubts of a lot today; nothing where nothing is. What only may be, or is only to be looked at, says so. */
export function Doubts({ lot }: { lot: Pick<LotRow, "id" | "mpn" | "made"> }) {
  const { data } = useLearned();
  const list = doubtsOfLot(data?.lessons ?? [], lot, todayIso());
  return (
    <>
      {list.map((d) => {
        const isStop = d.level === "error" && d.perhaps === undefined;
        const product = data?.products.find((p) => p.id === d.productId)?.name;
        return (
          <span key={d.id} className={`block text-[13px] ${isStop ? "text-stop" : "text-look"}`}>
            <Mark kind={isStop ? "blocked" : "look"} /> doubted: {d.title}
            {product && `, for ${product}`}
            {d.perhaps && `, if ${betweenWords(d.perhaps)}: its date code does not tell`}
          </span>
        );
      })}
    </>
  );
}
