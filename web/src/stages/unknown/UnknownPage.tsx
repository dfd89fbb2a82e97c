/** An address of a run that leads to no stage. */
export function UnknownPage() {
  return (
    <section>
      <h1>Not found</h1>
      <p className="mt-2 max-w-[60ch] text-ink-2">There is no such stage. The spine lists those there are.</p>
    </section>
  );
}
