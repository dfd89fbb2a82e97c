import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { imageFits, secretsIn } from "./fits.ts";
import { notSaidAt, strayImages } from "./places.ts";

/** What of the images does not go together with the boards, is not said, or should stay with the shop (N114, N116-N118). */
export function programNotes(doc: RunDocument, add: Add): void {
  const { assembly } = doc;
  const open = notSaidAt(assembly);
  if (open.length > 0)
    add(
      "assemble",
      `order-unloaded ${open.join(" ")}`.slice(0, 200),
      "warning",
      `What is loaded at ${open.join(", ")} is not said: images in their order, where they come from, under which licence.`,
      { do: "Write it down under Assemble, order of work; a bare chip may want a start-up program first." },
    );
  for (const i of strayImages(assembly))
    add(
      "assemble",
      `image-nowhere ${i.id}`,
      "warning",
      `${i.name} is loaded at ${i.at}, where no board is programmed: no step of the work loads it.`,
      { do: `Name ${i.at} as a place where boards are programmed, or load it at one that is.` },
    );
  for (const i of assembly.images ?? []) {
    const { is, because } = imageFits(i, doc.revision);
    if (is === "no")
      add("assemble", `image-refused ${i.id}`, "error", because, {
        do: "Take the version that runs on this revision, or say that it does.",
      });
    // where nothing at all is said of revisions, there may be but one
    else if (is === "unknown" && i.fits.length > 0)
      add("assemble", `image-unknown ${i.id}`, "warning", because, {
        do: "Say it under Assemble, order of work, before boards are loaded with it.",
      });
    else if (is === "limits") add("assemble", `image-limits ${i.id}`, "remark", because, {});
    const secrets = [...new Set(secretsIn(`${i.settings}\n${i.command}`))];
    if (secrets.length > 0)
      add(
        "assemble",
        `image-secret ${i.id}`,
        "warning",
        `What is set or run for ${i.name} holds a ${secrets.join(" and a ")}: it goes into every package and backup, and into every board alike.`,
        { do: "Make it a value that each board is given, and that is wiped before it is shipped." },
      );
  }
}
