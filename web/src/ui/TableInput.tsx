/** Where a table comes in: a file is chosen, or rows are pasted; either way its bytes are handed on. */
export function TableInput({
  fileLabel,
  rowsLabel,
  onTable,
}: {
  fileLabel: string;
  rowsLabel: string;
  onTable: (bytes: Uint8Array, name: string) => void;
}) {
  return (
    <>
      <label className="quiet-link cursor-pointer pb-1">
        <input
          type="file"
          aria-label={fileLabel}
          accept=".csv,.tsv,.txt,.xlsx"
          className="sr-only"
          onChange={async (e) => {
            const f = e.target.files?.[0];
            if (f) onTable(new Uint8Array(await f.arrayBuffer()), f.name);
          }}
        />
        choose a file
      </label>
      <textarea
        aria-label={rowsLabel}
        placeholder="or paste rows here"
        className="num h-8 min-h-0 flex-1 resize-none text-[13px]"
        value=""
        onChange={(e) => onTable(new TextEncoder().encode(e.target.value), "What was pasted")}
      />
    </>
  );
}
