import "./theme/components.css";
import "./theme/base.css";
import { MantineProvider } from "@mantine/core";
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { Refusal } from "./api/client";
import { OPENING_MS } from "./api/opening";
import { BASE, CASE } from "./api/sandbox";
import { persister } from "./api/seen";
import { noteRefusal } from "./api/session";
import { cssVariables, theme } from "./theme/theme";

/**
 * Asked whatever the browser thinks of the line: a request that is paused until it is back raises no error, and nothing
 * would say that what is on screen is old.
 */
const onError = (error: unknown) => noteRefusal(queries, error);
const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    mutations: { networkMode: "always" },
    queries: {
      networkMode: "always",
      /** Nothing of a case is kept: without the server it shows nothing. */
      persister: CASE === null ? persister : undefined,
      staleTime: CASE === null ? 0 : OPENING_MS,
      retry: (count, error) => count < 2 && !(error instanceof Refusal && error.status >= 400),
      refetchOnWindowFocus: false,
    },
  },
});

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <BrowserRouter basename={BASE || "/"}>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);
