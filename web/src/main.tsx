import "./styles/index.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { SWRConfig } from "swr";
import { routes } from "./routes.tsx";
import { startTheme } from "./theme.ts";
import { Toasts } from "./ui/Toast.tsx";

// the scroll lock of dialogs adds a style element; the policy lets it in by this page's nonce
const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;
if (nonce) (globalThis as { __webpack_nonce__?: string }).__webpack_nonce__ = nonce;

startTheme();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <SWRConfig value={{ shouldRetryOnError: false, revalidateOnFocus: true }}>
      <Toasts>
        <RouterProvider router={createBrowserRouter(routes)} />
      </Toasts>
    </SWRConfig>
  </StrictMode>,
);
