import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { SHOWN_STAYS } from "./job/shown";
import { JobPage } from "./shell/JobPage";
import { JobsPage } from "./shell/JobsPage";
import { applyTheme } from "./shell/theme";

applyTheme();
const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false } } });
queries.setQueryDefaults(...SHOWN_STAYS);
const router = createBrowserRouter([
  { path: "/", element: <JobsPage /> },
  { path: "/jobs/:id", element: <JobPage /> },
  { path: "/jobs/:id/:station", element: <JobPage /> },
  { path: "*", element: <JobsPage /> },
]);

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
