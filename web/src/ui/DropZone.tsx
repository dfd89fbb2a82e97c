import { fromEvent } from "file-selector";
import { type DragEvent, useRef, useState } from "react";
import { Button } from "./Button.tsx";

/** Takes files, archives and whole folders, dropped or chosen; what it hands on may fail while the disk is read. */
export function DropZone({
  onFiles,
  isCompact,
  says = isCompact ? "Drop other files here, or " : "Drop the files here",
}: {
  onFiles: (files: readonly File[] | Promise<readonly File[]>) => void;
  isCompact: boolean;
  /** What may be dropped. */
  says?: string;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const dropped = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    // a dropped folder gives the files in it, whatever the browser
    onFiles(fromEvent(e.nativeEvent).then((all) => all.filter((f) => f instanceof File)));
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the zone takes dropped files; the button inside is the same for keyboard and touch
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={dropped}
      className={`border border-dashed ${isOver ? "border-metal bg-metal-soft" : "border-ink-3"} ${isCompact ? "mb-3 px-4 py-2" : "px-6 py-14 text-center"}`}
    >
      <p className={isCompact ? "inline text-ink-2" : "mb-3 text-[17px]"}>{says}</p>
      <Button look={isCompact ? "bare" : "plain"} onClick={() => input.current?.click()}>
        choose files
      </Button>
      <input
        ref={input}
        type="file"
        multiple
        className="hidden"
        aria-label="Files of the board"
        onChange={(e) => {
          const chosen = [...(e.target.files ?? [])];
          e.target.value = "";
          if (chosen.length > 0) onFiles(chosen);
        }}
      />
    </div>
  );
}
