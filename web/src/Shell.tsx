import { Moon, Sun } from "lucide-react";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { isRouteErrorResponse, Link, Outlet, useNavigate, useRouteError } from "react-router";
import { signOut, useSession } from "./resources/session.ts";
import { currentTheme, toggleTheme } from "./theme.ts";
import { Dialog } from "./ui/Dialog.tsx";
import { boundKeys, type KeyBinding, useKeys } from "./ui/keys.ts";
import { Failed, Skeleton } from "./ui/States.tsx";

const WelcomePage = lazy(async () => ({
  default: (await import("./stages/welcome/WelcomePage.tsx")).WelcomePage,
}));

/** The page around everything: name of the shop, where one is, theme, keys. */
export function Shell() {
  const { data, error, isLoading, mutate } = useSession();
  const navigate = useNavigate();
  const [theme, setTheme] = useState(currentTheme);
  const [keys, setKeys] = useState<KeyBinding[]>();
  useEffect(() => {
    const follow = () => setTheme(currentTheme());
    window.addEventListener("kobbin-theme", follow);
    return () => window.removeEventListener("kobbin-theme", follow);
  }, []);
  const bindings = useMemo<KeyBinding[]>(
    () => [
      { keys: "?", does: "this sheet", run: () => setKeys(boundKeys()) },
      { keys: "b", does: "to the bench", run: () => navigate("/") },
      { keys: "n", does: "new product", run: () => navigate("/new") },
      { keys: "t", does: "paper or night", run: toggleTheme },
    ],
    [navigate],
  );
  useKeys(bindings);
  return (
    <div className="flex h-full flex-col max-md:h-auto max-md:min-h-full">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
      >
        skip to the work
      </a>
      <header className="no-print flex h-[52px] shrink-0 items-center gap-4 border-b border-rule px-5 max-sm:gap-2 max-sm:px-3">
        <Link to="/" className="flex items-center gap-2 text-[19px] font-extrabold tracking-tight">
          <span aria-hidden className="inline-block size-[9px] rotate-45 bg-metal" />
          Kobbin
        </Link>
        <div id="crumb" className="min-w-0 flex-1 truncate text-ink-2">
          {data?.shop?.name}
        </div>
        <button
          type="button"
          className="rounded p-1 text-ink-2 hover:text-ink"
          onClick={toggleTheme}
          aria-label={theme === "dark" ? "Switch to paper" : "Switch to night"}
        >
          {theme === "dark" ? <Sun className="size-[18px]" /> : <Moon className="size-[18px]" />}
        </button>
        <button
          type="button"
          className="text-ink-2 hover:text-ink max-sm:hidden"
          onClick={() => setKeys(boundKeys())}
        >
          keys <kbd className="rounded border border-b-2 border-rule px-[5px] text-[12px]">?</kbd>
        </button>
        {data?.shop && (
          <>
            <Link to="/settings" className="text-ink-2 hover:text-ink">
              settings
            </Link>
            <button
              type="button"
              className="text-ink-2 hover:text-ink"
              onClick={() => signOut().then(() => navigate("/"))}
            >
              leave
            </button>
          </>
        )}
      </header>
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto max-md:overflow-visible">
        {isLoading ? (
          <div className="p-8">
            <Skeleton />
          </div>
        ) : error ? (
          <div className="p-8">
            <Failed error={error} again={() => mutate()} />
          </div>
        ) : (
          <Suspense
            fallback={
              <div className="p-8">
                <Skeleton />
              </div>
            }
          >
            {data?.shop ? <Outlet /> : <WelcomePage />}
          </Suspense>
        )}
      </div>
      <Dialog open={keys !== undefined} onClose={() => setKeys(undefined)} title="Keys on this page">
        <table className="rows w-full">
          <tbody>
            {keys?.map((k) => (
              <tr key={`${k.keys} ${k.does}`}>
                <td className="w-32">
                  <kbd className="num rounded border border-b-2 border-rule px-2">{k.keys}</kbd>
                </td>
                <td>{k.does}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Dialog>
    </div>
  );
}

/** A place that is not there, or a page that broke. */
export function Lost() {
  const error = useRouteError();
  const isMissing = error === undefined || (isRouteErrorResponse(error) && error.status === 404);
  return (
    <main id="main" className="mx-auto max-w-[60ch] p-10">
      <h1>{isMissing ? "There is nothing at this address" : "This page broke"}</h1>
      <p className="my-3 text-ink-2">
        {isMissing
          ? "It may have been removed, or the link is cut off."
          : `What was saved is safe. ${error instanceof Error ? error.message : ""}`}
      </p>
      <Link to="/" className="quiet-link">
        to the bench
      </Link>
    </main>
  );
}
