import type { Claim, RunPhoto } from "@kobbin/core";
import { photoSrc, takenBy } from "../../photos/photo.ts";
import { usePrinted } from "../../ui/printed.ts";

/** Waits until photos are there to be printed; one that does not come leaves its place empty. */
export async function seen(photos: readonly RunPhoto[]): Promise<void> {
  await Promise.allSettled(
    photos.map((p) => {
      const image = new Image();
      image.src = photoSrc(p);
      return image.decode();
    }),
  );
}

/** What a claim is proven by, on paper: the letter, then each photo with what it shows and who took it when. */
export function ClaimPaper({
  claim: c,
  photos,
  onDone,
}: {
  claim: Claim;
  photos: readonly RunPhoto[];
  onDone: () => void;
}) {
  const paper = usePrinted(onDone);
  return (
    <section ref={paper} className="hidden print:block">
      <pre className="text-[12pt] whitespace-pre-wrap [font-family:inherit]">{c.letter}</pre>
      <div className="mt-6 grid grid-cols-2 gap-4">
        {photos.map((p, i) => (
          <figure key={p.id} className="break-inside-avoid">
            <img src={photoSrc(p)} alt="" width={p.widthPx} height={p.heightPx} className="h-auto w-full" />
            <figcaption className="text-[10pt]">
              {i + 1}. {p.note ? `${p.note}; ` : ""}
              {takenBy(p)}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}
