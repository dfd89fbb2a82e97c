import type { ComponentType } from "react";
import type { RouteObject } from "react-router";
import { patient } from "./patient.ts";
import { Lost, Shell } from "./Shell.tsx";
import { STAGES } from "./stages/index.ts";

const stage = (path: string, load: () => Promise<{ Component: ComponentType }>): RouteObject => ({
  path,
  lazy: patient(load),
});

/** Which screens there are and where each lives. */
export const routes: RouteObject[] = [
  {
    path: "/",
    element: <Shell />,
    errorElement: <Lost />,
    hydrateFallbackElement: <p className="p-8 text-ink-2">Opening …</p>,
    children: [
      {
        index: true,
        lazy: patient(async () => ({ Component: (await import("./stages/bench/BenchPage.tsx")).BenchPage })),
      },
      {
        path: "new",
        lazy: patient(async () => ({
          Component: (await import("./stages/new-product/NewProductPage.tsx")).NewProductPage,
        })),
      },
      {
        path: "settings/:part?",
        lazy: patient(async () => ({
          Component: (await import("./stages/settings/SettingsPage.tsx")).SettingsPage,
        })),
      },
      {
        path: "runs/:id",
        lazy: patient(async () => ({ Component: (await import("./run/RunFrame.tsx")).RunFrame })),
        children: [
          ...STAGES.map((s) => stage(s.key, s.load)),
          stage("history", async () => ({
            Component: (await import("./stages/history/RunHistoryPage.tsx")).RunHistoryPage,
          })),
          stage(":unknown", async () => ({
            Component: (await import("./stages/unknown/UnknownPage.tsx")).UnknownPage,
          })),
        ],
      },
      stage("waiting", async () => ({
        Component: (await import("./stages/waiting/WaitingPage.tsx")).WaitingPage,
      })),
      stage("lessons", async () => ({
        Component: (await import("./stages/lessons/LessonsPage.tsx")).LessonsPage,
      })),
      stage("library", async () => ({
        Component: (await import("./stages/library/LibraryPage.tsx")).LibraryPage,
      })),
      stage("shelf", async () => ({
        Component: (await import("./stages/library/ShelfPage.tsx")).ShelfPage,
      })),
      stage("products/:id/history", async () => ({
        Component: (await import("./stages/history/ProductHistoryPage.tsx")).ProductHistoryPage,
      })),
      stage("history", async () => ({
        Component: (await import("./stages/history/ProductHistoryPage.tsx")).ProductHistoryPage,
      })),
      // drawn by the shell itself: it needs no session
      { path: "join/:token", element: null },
      { path: "*", element: <Lost /> },
    ],
  },
];
