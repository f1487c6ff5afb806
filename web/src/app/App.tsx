import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { createBrowserRouter, RouterProvider } from "react-router";
import { useSettings } from "../api";
import { setUnits, unitsNow } from "../lib/units";
import { NoticeProvider } from "../ui";
import { Frame } from "./Frame";
import { PageError } from "./PageError";

const queries = new QueryClient({
  // The studio stands on this machine or in this house: whether the browser thinks it is online says nothing about it.
  defaultOptions: {
    queries: { staleTime: 5_000, retry: 1, refetchOnWindowFocus: true, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    errorElement: <PageError />,
    hydrateFallbackElement: <p className="p-14 text-soft">Opening…</p>,
    children: [
      { index: true, lazy: async () => ({ Component: (await import("../features/formulas")).FormulasPage }) },
      {
        path: "recipes/new",
        lazy: async () => ({ Component: (await import("../features/recipes")).RecipePage }),
      },
      {
        path: "formulas/:formulaId",
        lazy: async () => ({ Component: (await import("../features/desk")).DeskPage }),
      },
      {
        path: "formulas/:formulaId/ledger",
        lazy: async () => ({ Component: (await import("../features/ledger")).LedgerPage }),
      },
      {
        path: "formulas/:formulaId/versions",
        lazy: async () => ({ Component: (await import("../features/versions")).VersionsPage }),
      },
      {
        path: "formulas/:formulaId/curves",
        lazy: async () => ({ Component: (await import("../features/charts")).CurvesPage }),
      },
      {
        path: "formulas/:formulaId/money",
        lazy: async () => ({ Component: (await import("../features/money")).MoneyPage }),
      },
      {
        path: "formulas/:formulaId/label",
        lazy: async () => ({ Component: (await import("../features/labels")).LabelPage }),
      },
      {
        path: "batches/:batchId/label",
        lazy: async () => ({ Component: (await import("../features/labels")).LabelPage }),
      },
      { path: "clinic", lazy: async () => ({ Component: (await import("../features/clinic")).ClinicPage }) },
      {
        path: "clinic/:troubleId",
        lazy: async () => ({ Component: (await import("../features/clinic")).TroublePage }),
      },
      {
        path: "practice",
        lazy: async () => ({ Component: (await import("../features/practice")).PracticePage }),
      },
      {
        path: "practice/eye",
        lazy: async () => ({ Component: (await import("../features/practice")).EyePage }),
      },
      { path: "welcome", lazy: async () => ({ Component: (await import("../features/guide")).WelcomePage }) },
      { path: "guide", lazy: async () => ({ Component: (await import("../features/guide")).GuidePage }) },
      {
        path: "guide/:page",
        lazy: async () => ({ Component: (await import("../features/guide")).GuidePage }),
      },
      { path: "plan", lazy: async () => ({ Component: (await import("../features/plan")).PlanIndexPage }) },
      {
        path: "plan/:formulaId",
        lazy: async () => ({ Component: (await import("../features/plan")).PlanPage }),
      },
      {
        path: "pantry",
        lazy: async () => ({ Component: (await import("../features/ingredients")).PantryPage }),
      },
      {
        path: "pantry/:ingredientId",
        lazy: async () => ({ Component: (await import("../features/ingredients")).PantryPage }),
      },
      {
        path: "bench",
        lazy: async () => ({ Component: (await import("../features/batches")).BatchesPage }),
      },
      {
        path: "batches/:batchId",
        lazy: async () => ({ Component: (await import("../features/batches")).BatchPage }),
      },
      {
        path: "batches/:batchId/beside",
        lazy: async () => ({ Component: (await import("../features/batches")).BesidePage }),
      },
      {
        path: "journal",
        lazy: async () => ({ Component: (await import("../features/journal")).JournalPage }),
      },
      { path: "week", lazy: async () => ({ Component: (await import("../features/week")).WeekPage }) },
      {
        path: "settings",
        lazy: async () => ({ Component: (await import("../features/settings")).SettingsPage }),
      },
      {
        path: "settings/devices",
        lazy: async () => ({ Component: (await import("../features/devices")).DevicesPage }),
      },
      {
        path: "settings/workshop",
        lazy: async () => ({ Component: (await import("../features/workshop")).WorkshopPage }),
      },
      {
        path: "settings/files",
        lazy: async () => ({ Component: (await import("../features/files")).FilesPage }),
      },
      { path: "pantry/lots", lazy: async () => ({ Component: (await import("../features/lots")).LotsPage }) },
      {
        path: "pantry/lots/:lotId",
        lazy: async () => ({ Component: (await import("../features/lots")).LotPage }),
      },
      { path: "found", lazy: async () => ({ Component: (await import("../features/sales")).FoundPage }) },
      { path: "rack", lazy: async () => ({ Component: (await import("../features/rack")).RackPage }) },
      { path: "tub", lazy: async () => ({ Component: (await import("../features/tub")).TubPage }) },
      {
        path: "tub/series",
        lazy: async () => ({ Component: (await import("../features/tub")).SeriesListPage }),
      },
      {
        path: "tub/series/:seriesId",
        lazy: async () => ({ Component: (await import("../features/tub")).SeriesPage }),
      },
      { path: "tub/:testId", lazy: async () => ({ Component: (await import("../features/tub")).TestPage }) },
      {
        path: "learning",
        lazy: async () => ({ Component: (await import("../features/learning")).LearningPage }),
      },
      {
        path: "learning/trials",
        lazy: async () => ({ Component: (await import("../features/trials")).DesignsPage }),
      },
      {
        path: "learning/trials/:designId",
        lazy: async () => ({ Component: (await import("../features/trials")).DesignPage }),
      },
      { path: "look", lazy: async () => ({ Component: (await import("../features/look")).LookPage }) },
      { path: "*", element: <PageError missing /> },
    ],
  },
  {
    // At the bench nothing is small and nothing is beside the step in hand: it has a frame of its own.
    path: "/bench/:batchId",
    errorElement: <PageError />,
    hydrateFallbackElement: <p className="p-14 text-soft">Opening…</p>,
    lazy: async () => ({ Component: (await import("../features/bench")).BenchPage }),
  },
  {
    path: "/practice/:runId",
    errorElement: <PageError />,
    hydrateFallbackElement: <p className="p-14 text-soft">Opening…</p>,
    lazy: async () => ({ Component: (await import("../features/practice")).RunPage }),
  },
]);

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <NoticeProvider>
        <InStudioUnits />
      </NoticeProvider>
    </QueryClientProvider>
  );
}

/** Every page as the studio's units have it; a change of them draws the page in hand anew. */
function InStudioUnits() {
  const said = useSettings().data;
  const [shown, setShown] = useState(() => JSON.stringify(unitsNow()));
  useEffect(() => {
    if (!said) return;
    const { mass_unit, temperature_unit, volume_unit, decimal_sign, currency } = said;
    const next = JSON.stringify({ mass_unit, temperature_unit, volume_unit, decimal_sign, currency });
    if (next === JSON.stringify(unitsNow())) return;
    setUnits(JSON.parse(next) as ReturnType<typeof unitsNow>);
    setShown(next);
  }, [said]);
  return <RouterProvider key={shown} router={router} />;
}
