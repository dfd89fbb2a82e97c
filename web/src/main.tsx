import "./styles/index.css";
import { askEarly } from "./early.ts";
import { startTheme } from "./theme.ts";

askEarly(location.pathname);

// the scroll lock of dialogs adds a style element; the policy lets it in by this page's nonce
const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;
if (nonce) (globalThis as { __webpack_nonce__?: string }).__webpack_nonce__ = nonce;

startTheme();

// in steps, each a task of its own: evaluated at once they would hold the main thread for 100 ms
const { createElement, startTransition } = await import("react");
const { createRoot } = await import("react-dom/client");
const root = createRoot(document.getElementById("root")!);
await import("./ui/toast/Toast.tsx");
await import("./Shell.tsx");
const { App } = await import("./App.tsx");
startTransition(() => root.render(createElement(App)));
const { warmFormats } = await import("./ui/text/format.ts");
warmFormats();
