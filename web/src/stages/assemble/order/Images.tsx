import { imageFits, loadedAt, type ProgramImage } from "@kobbin/core";
import { sha256Hex } from "@kobbin/formats";
import { type ReactNode, useId, useRef, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { useSay } from "../../../ui/toast/Toast.tsx";
import {
  changed,
  fitsText,
  freshImage,
  moved,
  typedFits,
  typedValues,
  typedWires,
  valuesText,
  wiresText,
} from "./imageModel.ts";

const NONE: readonly ProgramImage[] = [];
/** A file is only hashed, and stays where it is: so large is no program of a small board. */
const MOST_BYTES = 32 * 1024 * 1024;

/** What is loaded, in its order: which image into which place, with what, and on which revisions it runs. */
export function Images() {
  const { doc, change, isLocked } = useRun();
  const [open, setOpen] = useState<string>();
  const images = doc.assembly.images ?? NONE;
  const places = loadedAt(doc.assembly);
  if (places.length === 0 && images.length === 0) return null;
  const keep = (next: readonly ProgramImage[], words: string) =>
    change({ assembly: { images: next } } as never, words);
  const add = () => {
    const fresh = freshImage(crypto.randomUUID(), places[0] ?? "", images.length + 1);
    keep([...images, fresh], "An image to load");
    setOpen(fresh.id);
  };
  return (
    <section aria-label="What is loaded" className="mt-6">
      <p className="flex flex-wrap items-baseline gap-4">
        <span className="text-[15px] font-semibold">What is loaded, in its order</span>
        {!isLocked && places.length > 0 && (
          <button type="button" className="quiet-link text-[14px]" onClick={add}>
            add an image
          </button>
        )}
      </p>
      <ol>
        {images.map((i, n) => {
          const fits = imageFits(i, doc.revision);
          return (
            <li key={i.id} className="border-t border-rule py-1">
              <button
                type="button"
                aria-expanded={open === i.id}
                className="flex w-full flex-wrap items-baseline gap-x-3 text-left text-[14.5px] hover:bg-metal-soft"
                onClick={() => setOpen(open === i.id ? undefined : i.id)}
              >
                <span className="num text-ink-2">{n + 1}</span>
                <b>
                  {i.name} <span className="num">{i.version}</span>
                </b>
                <span className="text-ink-2">at {i.at || "no place"}</span>
                <span className={`ml-auto text-[13.5px] ${FITS[fits.is][1]}`}>
                  {i.fits.length === 0 ? "" : `${FITS[fits.is][0]} ${doc.revision}`}
                </span>
              </button>
              {open === i.id && (
                <Form image={i} n={n} of={images.length} images={images} places={places} onKeep={keep} />
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

const FITS = {
  yes: ["runs on", "text-fine"],
  limits: ["runs, with limits, on", "text-look"],
  no: ["not for", "text-stop"],
  unknown: ["not said of", "text-look"],
} as const;

function Form({
  image: i,
  n,
  of,
  images,
  places,
  onKeep,
}: {
  image: ProgramImage;
  n: number;
  of: number;
  images: readonly ProgramImage[];
  places: readonly string[];
  onKeep: (next: readonly ProgramImage[], words: string) => void;
}) {
  const { isLocked } = useRun();
  const say = useSay();
  const set = (more: Partial<ProgramImage>, what: string) =>
    onKeep(changed(images, i.id, more), `${i.name}: ${what}`);
  const text = (
    key: "name" | "version" | "from" | "tool" | "settings" | "command" | "expect",
    label: string,
    most: number,
    placeholder = "",
  ) => (
    <Kept
      label={label}
      placeholder={placeholder}
      disabled={isLocked}
      maxLength={most}
      value={i[key]}
      onSave={(v) => (key !== "name" || v !== "") && set({ [key]: v }, label.toLowerCase())}
    />
  );
  /** Rows that are typed as lines: kept when all of them can be read. */
  const rows = <T,>(
    label: string,
    value: string,
    read: (text: string) => { readonly rows: readonly T[] } | { readonly wrong: string },
    key: "wires" | "fits" | "values",
    placeholder: string,
  ) => (
    <Lines
      label={label}
      value={value}
      placeholder={placeholder}
      disabled={isLocked}
      onSave={(typed) => {
        const r = read(typed);
        if ("wrong" in r)
          return say(`${i.name}: ${r.wrong}`, { isProblem: true, hint: "It stays as it was." });
        set({ [key]: r.rows } as Partial<ProgramImage>, label.toLowerCase());
      }}
    />
  );
  return (
    <fieldset className="my-2 ml-5 border-l-2 border-rule pl-3">
      <legend className="sr-only">
        {n + 1}. {i.name}
      </legend>
      <div className="grid grid-cols-4 items-end gap-3 max-lg:grid-cols-2 max-sm:grid-cols-1">
        {text("name", "Name", 120)}
        {text("version", "Version", 60, "1.4.2")}
        <Pick
          label="Loaded at"
          value={i.at}
          disabled={isLocked}
          options={[...new Set([...places, i.at])].map((p) => [p, p || "no place"])}
          onChange={(at) => set({ at }, `at ${at}`)}
        />
        {text("tool", "By which tool", 200, "clip on the four pads")}
        {text("from", "From where, under which licence", 300)}
        {text("settings", "First set beside the image", 1000, "8 MHz, brown-out at 2.7 V")}
        <TheFile image={i} isLocked={isLocked} onSet={set} />
        {text("expect", "What the tool says when it went well", 300, "verified")}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        {text("command", "What is run, to be copied; Kobbin runs nothing", 1000)}
        {rows("Contacts, a line each", wiresText(i), typedWires, "wires", "J5.1 = red clip")}
        {rows("Versions and revisions, a line each", fitsText(i), typedFits, "fits", "1.4–1.9 on B: yes")}
        {rows(
          "Given to each board; (wiped) goes before it is shipped",
          valuesText(i),
          typedValues,
          "values",
          "number; network key (wiped)",
        )}
      </div>
      {!isLocked && <Moves image={i} n={n} of={of} images={images} onKeep={onKeep} />}
    </fieldset>
  );
}

/** Lines of text that are kept when they are left. */
function Lines({
  label,
  value,
  placeholder,
  disabled,
  onSave,
}: {
  label: ReactNode;
  value: string;
  placeholder: string;
  disabled: boolean;
  onSave: (text: string) => void;
}) {
  const id = useId();
  const [draft, setDraft] = useState<string>();
  return (
    <div className="flex flex-col gap-[3px]">
      <label htmlFor={id} className="text-[13.5px] text-ink-2">
        {label}
      </label>
      <textarea
        id={id}
        className="num w-full text-[14px]"
        rows={Math.min(8, Math.max(1, (draft ?? value).split("\n").length))}
        placeholder={placeholder}
        disabled={disabled}
        value={draft ?? value}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={() => {
          if (draft !== undefined && draft.trim() !== value) onSave(draft);
          setDraft(undefined);
        }}
      />
    </div>
  );
}

/** Which file it is: shown once, so that its hash is known; the file itself stays where it is. */
function TheFile({
  image: i,
  isLocked,
  onSet,
}: {
  image: ProgramImage;
  isLocked: boolean;
  onSet: (more: Partial<ProgramImage>, what: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const say = useSay();
  const show = async (file: File) => {
    if (file.size > MOST_BYTES)
      return say(`${file.name} takes ${Math.round(file.size / 1e6)} MB.`, {
        isProblem: true,
        hint: "That is no program of a board.",
      });
    const sha256 = await hashOf(new Uint8Array(await file.arrayBuffer()));
    onSet({ file: file.name.slice(0, 200), bytes: file.size, sha256 }, `the file ${file.name}`);
  };
  return (
    <div className="text-[14px]">
      <p className="text-[13.5px] text-ink-2">Its file</p>
      <p className="flex flex-wrap items-center gap-3">
        {i.sha256 ? (
          <span className="num min-w-0 break-all">
            {i.file}, begins {i.sha256.slice(0, 12)}
          </span>
        ) : (
          <span className="text-ink-2">not shown yet</span>
        )}
        {!isLocked && <Button onClick={() => input.current?.click()}>Show the file</Button>}
        <input
          ref={input}
          type="file"
          className="hidden"
          aria-label={`File of ${i.name}`}
          onChange={(e) => {
            const [file] = e.target.files ?? [];
            e.target.value = "";
            if (file) void show(file);
          }}
        />
      </p>
    </div>
  );
}

/** An image earlier, later, or gone. */
function Moves({
  image: i,
  n,
  of,
  images,
  onKeep,
}: {
  image: ProgramImage;
  n: number;
  of: number;
  images: readonly ProgramImage[];
  onKeep: (next: readonly ProgramImage[], words: string) => void;
}) {
  return (
    <p className="mt-2 flex gap-4 text-[14px]">
      {(
        [
          [-1, "earlier", n > 0],
          [1, "later", n < of - 1],
        ] as const
      ).map(([by, word, may]) => (
        <button
          key={word}
          type="button"
          className="quiet-link disabled:opacity-40"
          disabled={!may}
          aria-label={`${i.name} ${word}`}
          onClick={() => onKeep(moved(images, i.id, by), `${i.name} ${word}`)}
        >
          {word}
        </button>
      ))}
      <button
        type="button"
        className="quiet-link"
        aria-label={`Remove ${i.name}`}
        onClick={() =>
          onKeep(
            images.filter((x) => x.id !== i.id),
            `${i.name} is not loaded`,
          )
        }
      >
        remove
      </button>
    </p>
  );
}

/** SHA-256 as hex; beside the page where the browser does it, which it does not on plain addresses of a network. */
async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  if (!crypto.subtle) return sha256Hex(bytes);
  const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return Array.from(digest, (b) => b.toString(16).padStart(2, "0")).join("");
}
