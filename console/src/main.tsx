import "@fontsource/roboto/400.css";
import "@fontsource/roboto/500.css";
import "@fontsource/roboto/700.css";
import "@mantine/core/styles.css";
import "@mantine/dropzone/styles.css";
import "./sheet.css";
import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { BatchPage } from "./batch/BatchPage";
import { BatchesPage } from "./batches/BatchesPage";
import { NotThere } from "./shared/NotThere";
import { Shell } from "./shared/Shell";
import { theme } from "./shared/theme";

// What the service says changes only when work goes on there, and then events tell of it.
const queries = new QueryClient({ defaultOptions: { queries: { staleTime: 5_000, retry: 1 } } });

const router = createBrowserRouter([
  {
    path: "/welcome",
    lazy: async () => ({ Component: (await import("./people/WelcomePage")).WelcomePage }),
    HydrateFallback: () => null,
  },
  {
    element: <Shell />,
    children: [
      { path: "/", element: <BatchesPage /> },
      { path: "/batches/:id", element: <BatchPage /> },
      {
        path: "/review",
        lazy: async () => ({ Component: (await import("./review/ReviewPage")).ReviewPage }),
        HydrateFallback: () => null,
      },
      // Page drawing is heavy, so it is loaded when a page is first drawn.
      {
        path: "/invoices/:id",
        lazy: async () => ({ Component: (await import("./invoice/InvoicePage")).InvoicePage }),
        HydrateFallback: () => null,
      },
      {
        path: "/desk/:id",
        lazy: async () => ({ Component: (await import("./desk/DeskPage")).DeskPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/templates",
        lazy: async () => ({ Component: (await import("./templates/TemplatesPage")).TemplatesPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/templates/:name",
        lazy: async () => ({ Component: (await import("./templates/TemplatePage")).TemplatePage }),
        HydrateFallback: () => null,
      },
      {
        path: "/batches/:id/sheet",
        lazy: async () => ({ Component: (await import("./batch/SheetPage")).SheetPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/figures",
        lazy: async () => ({ Component: (await import("./figures/FiguresPage")).FiguresPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/posting",
        lazy: async () => ({ Component: (await import("./posting/PostingPage")).PostingPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/posting/:number",
        lazy: async () => ({ Component: (await import("./posting/RunPage")).RunPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/sums",
        lazy: async () => ({ Component: (await import("./sums/SumsPage")).SumsPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/coding",
        lazy: async () => ({ Component: (await import("./coding/CodingPage")).CodingPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/receivers/:name",
        lazy: async () => ({ Component: (await import("./delivery/ReceiverPage")).ReceiverPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/schedules/:name",
        lazy: async () => ({ Component: (await import("./schedules/SchedulePage")).SchedulePage }),
        HydrateFallback: () => null,
      },
      {
        path: "/sources",
        lazy: async () => ({ Component: (await import("./sources/SourcesPage")).SourcesPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/sources/:name",
        lazy: async () => ({ Component: (await import("./sources/SourcePage")).SourcePage }),
        HydrateFallback: () => null,
      },
      {
        path: "/layouts/:name",
        lazy: async () => ({ Component: (await import("./posting/LayoutPage")).LayoutPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/vendors",
        lazy: async () => ({ Component: (await import("./vendors/VendorsPage")).VendorsPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/vendors/:id",
        lazy: async () => ({ Component: (await import("./vendors/VendorPage")).VendorPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/history",
        lazy: async () => ({ Component: (await import("./history/HistoryPage")).HistoryPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/you",
        lazy: async () => ({ Component: (await import("./people/YouPage")).YouPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/operation",
        lazy: async () => ({ Component: (await import("./operation/OperationPage")).OperationPage }),
        HydrateFallback: () => null,
      },
      {
        path: "/people",
        lazy: async () => ({ Component: (await import("./people/PeoplePage")).PeoplePage }),
        HydrateFallback: () => null,
      },
      {
        path: "/help/*",
        lazy: async () => ({ Component: (await import("./help/HelpPage")).HelpPage }),
        HydrateFallback: () => null,
      },
      { path: "*", element: <NotThere /> },
    ],
  },
]);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} defaultColorScheme="auto">
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
}
