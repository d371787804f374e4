import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { whileBusy } from "./api/client";
import "./index.css";
import { router } from "./router";
import { applyTheme, storedTheme } from "./ui/theme";

applyTheme(storedTheme());

const AGAIN_AFTER_MS = 1500;

const client = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (failed, error) => failed < 1 || whileBusy(failed, error),
      retryDelay: AGAIN_AFTER_MS,
      refetchOnWindowFocus: false,
      staleTime: 30_000,
    },
    mutations: { retry: whileBusy, retryDelay: AGAIN_AFTER_MS },
  },
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
