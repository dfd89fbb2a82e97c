import { useBench } from "./resources/bench.ts";
import { useLive } from "./resources/live.ts";
import { useSession } from "./resources/session.ts";

/** Who else is in the shop now, and where. */
export function Here() {
  const { here } = useLive();
  const { data } = useBench();
  const { data: me } = useSession();
  if (here.length === 0) return null;
  const where = (place: string): string => {
    const [what, id, stage, unit] = place.split("/");
    if (what !== "runs") return what ? what : "bench";
    const run = data?.runs.find((r) => r.id === id);
    return `${run ? run.name : "a run"}${stage ? `, ${stage}` : ""}${unit ? `, board ${unit}` : ""}`;
  };
  return (
    <p className="max-w-[300px] truncate text-[13px] text-ink-2 max-sm:max-w-[90px]">
      <span className="max-sm:hidden">also here: </span>
      {here.map((p, i) => (
        <span key={p.page}>
          {i > 0 && "; "}
          <b className="text-ink">{p.person === me?.person ? "you" : p.person}</b>{" "}
          <span className="max-sm:hidden">({where(p.place)})</span>
        </span>
      ))}
    </p>
  );
}
