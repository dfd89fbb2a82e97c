/** How far something long is: a bar, and in words what is being done. */
export function Progress({ what, share }: { what: string; share: number }) {
  return (
    <div className="my-4 w-full" role="status" aria-live="polite">
      <div className="h-[6px] w-full overflow-hidden rounded-full bg-grid">
        <div className="h-full bg-metal" style={{ width: `${Math.round(share * 100)}%` }} />
      </div>
      <p className="num mt-1 text-[13px] text-ink-2">{what}</p>
    </div>
  );
}
