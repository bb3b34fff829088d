import "@fontsource-variable/source-sans-3";
import "./style.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { BenchPage } from "./views/BenchPage";
import { Fault } from "./views/Fault";
import { ProofPage } from "./views/ProofPage";
import { Register } from "./views/Register";

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content;
if (nonce) setNonce(nonce);

const router = createBrowserRouter([
  { path: "/", element: <Register />, errorElement: <Fault /> },
  { path: "/jobs/:jobId", element: <BenchPage />, errorElement: <Fault /> },
  { path: "/jobs/:jobId/proof", element: <ProofPage />, errorElement: <Fault /> },
]);
const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

createRoot(document.getElementById("desk")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
