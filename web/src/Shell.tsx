import { Moon, Sun } from "lucide-react";
import { lazy, Suspense, useCallback, useEffect, useMemo, useState } from "react";
import { isRouteErrorResponse, Link, Outlet, useLocation, useNavigate, useRouteError } from "react-router";
import { Here } from "./Here.tsx";
import { fetchAhead, patient } from "./patient.ts";
import { refetchAll } from "./resources/history.ts";
import { placeOf, startLive, tellPlace } from "./resources/live.ts";
import { outbox } from "./resources/outbox.ts";
import { signOut, useSession } from "./resources/session.ts";
import { AwayStrip } from "./Saving.tsx";
import { SignInAgain } from "./SignInAgain.tsx";
import { toggleTheme } from "./theme.ts";
import { useArrows } from "./ui/arrows.ts";
import { Dialog } from "./ui/Dialog.tsx";
import { boundKeys, type KeyBinding, useKeys } from "./ui/keys.ts";
import { useCopyRows } from "./ui/rows.ts";
import { Failed, Skeleton } from "./ui/States.tsx";
import { count, formats, setFormats, useFormats } from "./ui/text/format.ts";
import { useSay, useSayError } from "./ui/toast/Toast.tsx";
import { useTheme } from "./ui/useTheme.ts";

const WelcomePage = lazy(async () => ({
  default: (await import("./stages/welcome/WelcomePage.tsx")).WelcomePage,
}));
const JoinPage = lazy(async () => ({ default: (await import("./stages/join/JoinPage.tsx")).JoinPage }));
const CommandBox = lazy(
  patient(async () => ({ default: (await import("./command/CommandBox.tsx")).CommandBox })),
);

/** Where a key leads from anywhere. */
const PLACES = [
  ["b", "to the bench", "/"],
  ["n", "new product", "/new"],
  ["o", "orders that are waited for", "/waiting"],
  ["e", "what went wrong before: lessons", "/lessons"],
  ["l", "to the library of parts", "/library"],
  ["s", "to the shelf", "/shelf"],
] as const;

/** Whoever stays this long may lose the connection later; who passes through is not made to read every screen's code. */
const AHEAD_MS = 30_000;

/** The page around everything: name of the shop, where one is, who else is here, theme, keys. */
export function Shell() {
  const { data, error, isLoading, mutate } = useSession();
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const theme = useTheme();
  const [keys, setKeys] = useState<KeyBinding[]>();
  const [actions, setActions] = useState<KeyBinding[]>();
  const say = useSay();
  const sayError = useSayError();
  const shop = data?.shop;
  if (shop) setFormats({ decimalMark: shop.decimalMark, dateOrder: shop.dateOrder });
  useFormats();
  useEffect(() => {
    if (shop) setFormats({ showsMil: shop.showsMil });
  }, [shop]);

  // while somebody is signed in: listen, send what an earlier life of the page could not, tell where one is
  const shopId = shop?.id;
  useEffect(() => {
    outbox.enter(shopId);
    if (!shopId) return;
    void outbox.adopt(sayError).then((n) => (n > 0 ? refetchAll() : undefined));
    const later = setTimeout(() => void fetchAhead(), AHEAD_MS);
    const end = startLive(say);
    return () => {
      clearTimeout(later);
      end();
    };
  }, [shopId, say, sayError]);
  const place = placeOf(pathname, search);
  useEffect(() => {
    if (shopId) void tellPlace(place);
  }, [shopId, place]);
  useArrows();
  useCopyRows(useCallback((n: number) => say(`${count(n, "row")} copied`), [say]));

  const bindings = useMemo<KeyBinding[]>(
    () => [
      { keys: "?", does: "this sheet", run: () => setKeys(boundKeys()) },
      ...(shopId
        ? [
            { keys: "/", does: "find or do", run: () => setActions(boundKeys()) },
            ...PLACES.map(([keys, does, to]) => ({ keys, does, run: () => navigate(to) })),
          ]
        : []),
      { keys: "t", does: "paper or night", run: toggleTheme },
      { keys: "u", does: "mil beside mm", run: () => setFormats({ showsMil: !formats().showsMil }) },
    ],
    [navigate, shopId],
  );
  useKeys(bindings);
  const isJoining = pathname.startsWith("/join/");
  return (
    <div className="flex h-full flex-col max-md:h-auto max-md:min-h-full">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
      >
        skip to the work
      </a>
      <header className="no-print flex h-[52px] shrink-0 items-center gap-4 border-b border-rule px-5 max-sm:gap-3 max-sm:px-3">
        <Link to="/" className="flex items-center gap-2 text-[19px] font-extrabold tracking-tight">
          <span aria-hidden className="inline-block size-[9px] rotate-45 bg-metal" />
          <span className="max-[430px]:sr-only">Kobbin</span>
        </Link>
        <div id="crumb" className="min-w-0 flex-1 truncate text-ink-2">
          {shop?.name}
        </div>
        {shop && <Here />}
        {shop && (
          <button
            type="button"
            className="shrink-0 text-ink-2 hover:text-ink"
            onClick={() => setActions(boundKeys())}
          >
            find{" "}
            <kbd className="rounded border border-b-2 border-rule px-[5px] text-[12px] max-sm:hidden">/</kbd>
          </button>
        )}
        <button
          type="button"
          className="shrink-0 text-ink-2 hover:text-ink max-sm:hidden"
          onClick={() => setKeys(boundKeys())}
        >
          keys <kbd className="rounded border border-b-2 border-rule px-[5px] text-[12px]">?</kbd>
        </button>
        <button
          type="button"
          className="rounded p-1 text-ink-2 hover:text-ink"
          onClick={toggleTheme}
          aria-label={theme === "dark" ? "Switch to paper" : "Switch to night"}
        >
          {theme === "dark" ? <Sun className="size-[18px]" /> : <Moon className="size-[18px]" />}
        </button>
        {shop && (
          <>
            {["waiting", "lessons", "library", "shelf"].map((place) => (
              <Link key={place} to={`/${place}`} className="shrink-0 text-ink-2 hover:text-ink max-sm:hidden">
                {place}
              </Link>
            ))}
            <Link to="/settings" className="shrink-0 text-ink-2 hover:text-ink">
              settings
            </Link>
            <button
              type="button"
              className="shrink-0 text-ink-2 hover:text-ink max-[430px]:hidden"
              onClick={() => signOut().then(() => navigate("/"), sayError)}
            >
              leave
            </button>
          </>
        )}
      </header>
      <AwayStrip />
      <div className="relative flex min-h-0 flex-1 flex-col overflow-y-auto max-md:overflow-visible">
        {isJoining ? (
          <Suspense>
            <JoinPage />
          </Suspense>
        ) : isLoading ? (
          <div className="p-8">
            <Skeleton />
          </div>
        ) : error && !data ? (
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
            {shop ? <Outlet /> : <WelcomePage />}
          </Suspense>
        )}
      </div>
      {shop && <SignInAgain />}
      {actions && (
        <Suspense>
          <CommandBox actions={actions} onClose={() => setActions(undefined)} />
        </Suspense>
      )}
      <Dialog open={keys !== undefined} onClose={() => setKeys(undefined)} title="Keys on this page">
        <table className="rows w-full">
          <tbody>
            {keys?.map((k) => (
              <tr key={`${k.keys} ${k.does}`}>
                <td className="w-56 whitespace-nowrap">
                  <kbd className="num rounded border border-b-2 border-rule px-2">{k.keys}</kbd>
                </td>
                <td>{k.does}</td>
              </tr>
            ))}
            <tr>
              <td>
                <kbd className="num rounded border border-b-2 border-rule px-2">Ctrl+C</kbd>
              </td>
              <td>copy the row one is in, as a spreadsheet takes it</td>
            </tr>
          </tbody>
        </table>
      </Dialog>
    </div>
  );
}

/** A place that is not there, or a page that broke. */
export function Lost() {
  const error = useRouteError();
  // no error at all: the address itself leads nowhere
  const isMissing = error == null || (isRouteErrorResponse(error) && error.status === 404);
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
