import "@fontsource-variable/source-sans-3";
import "./style.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { type ComponentType, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { queries } from "./state/queries";
import { Fault } from "./views/Fault";

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content;
if (nonce) setNonce(nonce);

/** A view's code is fetched when it is first opened. */
const view = (path: string, lazy: () => Promise<{ Component: ComponentType }>) => ({
  path,
  lazy,
  errorElement: <Fault />,
  hydrateFallbackElement: <p className="p-8">Opening…</p>,
});
const router = createBrowserRouter([
  view("/", async () => ({ Component: (await import("./views/Register")).Register })),
  view("/jobs/:jobId", async () => ({ Component: (await import("./views/BenchPage")).BenchPage })),
  view("/jobs/:jobId/board", async () => ({ Component: (await import("./views/BoardPage")).BoardPage })),
  view("/jobs/:jobId/practice", async () => ({
    Component: (await import("./views/PracticePage")).PracticePage,
  })),
  view("/jobs/:jobId/cutter", async () => ({
    Component: (await import("./views/CutterPage")).CutterPage,
  })),
  view("/profile", async () => ({ Component: (await import("./views/ProfilePage")).ProfilePage })),
  view("/class", async () => ({ Component: (await import("./views/ClassPage")).ClassPage })),
  view("/kits", async () => ({ Component: (await import("./views/KitsPage")).KitsPage })),
  view("/logbook", async () => ({ Component: (await import("./views/LogbookPage")).LogbookPage })),
  view("*", async () => ({ Component: (await import("./views/NothingHere")).NothingHere })),
  view("/jobs/:jobId/proof", async () => ({ Component: (await import("./views/ProofPage")).ProofPage })),
]);

createRoot(document.getElementById("desk")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
