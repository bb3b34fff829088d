import "@fontsource-variable/source-sans-3";
import "./style.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { type ComponentType, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { NOBODY } from "./api/client";
import { AskedFirst } from "./office/WhoWorks";
import { queries } from "./state/queries";
import { Fault } from "./views/Fault";

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content;
if (nonce) setNonce(nonce);

// The desk says that nobody works here: it is asked anew who does.
window.addEventListener(NOBODY, () => void queries.invalidateQueries({ queryKey: ["here"] }));

type Page = { Component: ComponentType };

/** Every page is a file of `pages`, called as its address: `jobs.$jobId.proof.tsx` is /jobs/:jobId/proof. Its code is
 * fetched when it is first opened. */
const pages = import.meta.glob<Page>("./pages/*.tsx");

function addressOf(file: string): string {
  const name = file.slice("./pages/".length, -".tsx".length);
  return name === "index" ? "/" : `/${name.replaceAll(".", "/").replaceAll("$", ":")}`;
}

const route = (path: string, lazy: () => Promise<Page>) => ({
  path,
  lazy,
  errorElement: <Fault />,
  hydrateFallbackElement: <p className="p-8">Opening…</p>,
});
const router = createBrowserRouter([
  ...Object.entries(pages).map(([file, lazy]) => route(addressOf(file), lazy)),
  route("*", () => import("./views/NothingHere")),
]);

createRoot(document.getElementById("desk")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <AskedFirst>
        <RouterProvider router={router} />
      </AskedFirst>
    </QueryClientProvider>
  </StrictMode>,
);
