import { StrictMode } from "react";
import { createBrowserRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { SWRConfig } from "swr";
import { routes } from "./routes.tsx";
import { Toasts } from "./ui/toast/Toast.tsx";

const router = createBrowserRouter(routes);

/** Everything on the page: its addresses, what it keeps of the server's answers, its passing messages. */
export function App() {
  return (
    <StrictMode>
      <SWRConfig value={{ shouldRetryOnError: false, revalidateOnFocus: true }}>
        <Toasts>
          <RouterProvider router={router} />
        </Toasts>
      </SWRConfig>
    </StrictMode>
  );
}
