import {
  type QueryFilters,
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";
import type {
  BalanceResult,
  Band,
  Certificate,
  Charts,
  Comparison,
  Evaluation,
  FormulaFile,
  PriceBreakText,
  ProfileSettings,
} from "./types";

/** One hook per request; the keys stand here and nowhere else. */
const KEYS = {
  formulas: ["formulas"] as const,
  formulaPages: (q: string) => ["formulas", "pages", q] as const,
  formula: (id: number) => ["formulas", id] as const,
  ingredients: ["ingredients"] as const,
  ingredient: (id: string) => ["ingredients", id] as const,
  reference: ["reference"] as const,
  profiles: ["profiles"] as const,
  moulds: ["moulds"] as const,
  comparison: (id: number, first: number, second: number) =>
    ["formulas", id, "comparison", first, second] as const,
};

const WAITING_MS = 1000;

export interface OwnIngredient {
  based_on: string;
  name: string;
  inci: string;
  note: string;
  properties: Record<string, number | null>;
}

export const referenceQuery = queryOptions({
  queryKey: KEYS.reference,
  queryFn: () => api(client.GET("/api/reference")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const useReference = () => useQuery(referenceQuery);

/** What a formula has where nobody has said; undefined until it is known. */
export const useUsual = () => useReference().data?.empty_formula;

/** Formulas that hold the words, last changed first, a page at a time. */
export const useFormulas = (q = "") =>
  useInfiniteQuery({
    queryKey: KEYS.formulaPages(q),
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/formulas", { params: { query: { q, ...(cursor ? { cursor } : {}) } } })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
    // Figures that are still being worked out are asked for again until they are there.
    refetchInterval: ({ state }) => ((state.data?.pages[0]?.waiting ?? 0) > 0 ? WAITING_MS : false),
  });

export const useFormula = (id: number) =>
  useQuery({
    queryKey: KEYS.formula(id),
    queryFn: () => getFormula(id),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });

export const useIngredients = () =>
  useQuery({
    queryKey: KEYS.ingredients,
    queryFn: () => api(client.GET("/api/ingredients")),
    staleTime: 60_000,
  });

export const useIngredient = (id: string | undefined) =>
  useQuery({
    queryKey: KEYS.ingredient(id ?? ""),
    queryFn: () =>
      api(client.GET("/api/ingredients/{ingredient_id}", { params: { path: { ingredient_id: id ?? "" } } })),
    enabled: id !== undefined,
  });

export const getFormula = (id: number) =>
  api(client.GET("/api/formulas/{formula_id}", { params: { path: { formula_id: id } } }));

export const putFormula = (id: number, revision: number, formula: FormulaFile) =>
  api(
    client.PUT("/api/formulas/{formula_id}", {
      params: { path: { formula_id: id } },
      body: { revision, formula },
    }),
  );

// openapi-fetch widens tuples to arrays; the description has them as pairs.
export type Stage = "formula" | "batch" | "label" | "sale";

export const evaluate = async (formula: FormulaFile, signal: AbortSignal, stage: Stage = "formula") =>
  (await api(
    client.POST("/api/evaluations", { body: formula, params: { query: { stage } }, signal }),
  )) as Evaluation;

export const readRecipe = (text: string, which = 0, signal?: AbortSignal) =>
  api(client.POST("/api/recipe-readings", { body: { text, which }, ...(signal ? { signal } : {}) }));

/** A change that makes the lists stale. */
function useChange<In, Out>(change: (input: In) => Promise<Out>, stale: readonly QueryFilters[]) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    // A list asked for before the change, and not answered yet, would be taken for the list after it: it is asked anew.
    onSuccess: () =>
      Promise.all(
        stale.map(async (lists) => {
          await queries.cancelQueries(lists);
          await queries.invalidateQueries(lists);
        }),
      ),
  });
}

const FORMULAS = [{ queryKey: KEYS.formulas }];
const INGREDIENTS = [{ queryKey: KEYS.ingredients }];

export const useCreateFormula = () =>
  useChange((formula: FormulaFile) => api(client.POST("/api/formulas", { body: formula })), FORMULAS);

export const useDeleteFormula = () =>
  useChange(
    (id: number) =>
      api(client.DELETE("/api/formulas/{formula_id}", { params: { path: { formula_id: id } } })),
    [{ queryKey: [...KEYS.formulas, "pages"] }], // not the formula itself: it is gone
  );

export const restoreFormula = (id: number) =>
  api(client.POST("/api/formulas/{formula_id}/restore", { params: { path: { formula_id: id } } }));

export const useRestoreFormula = () => useChange(restoreFormula, FORMULAS);

export const useKeepVersion = () =>
  useChange(
    ({ id, note }: { id: number; note: string }) =>
      api(
        client.POST("/api/formulas/{formula_id}/versions", {
          params: { path: { formula_id: id } },
          body: { note },
        }),
      ),
    FORMULAS,
  );

export const useSetPrice = () =>
  useChange(
    ({ id, price, breaks }: { id: string; price: string; breaks: PriceBreakText[] }) =>
      api(
        price.trim()
          ? client.PUT("/api/ingredients/{ingredient_id}/price", {
              params: { path: { ingredient_id: id } },
              body: { price_per_kg: price, breaks },
            })
          : client.DELETE("/api/ingredients/{ingredient_id}/price", {
              params: { path: { ingredient_id: id } },
            }),
      ),
    INGREDIENTS,
  );

export const useSaveCertificate = () =>
  useChange(
    ({ id, paper }: { id: string; paper: Certificate }) =>
      api(
        client.PUT("/api/ingredients/{ingredient_id}/certificate", {
          params: { path: { ingredient_id: id } },
          body: paper,
        }),
      ),
    INGREDIENTS,
  );

export const useSaveStock = () =>
  useChange(
    ({ id, on_hand_g }: { id: string; on_hand_g: number | null }) =>
      api(
        client.PUT("/api/ingredients/{ingredient_id}/stock", {
          params: { path: { ingredient_id: id } },
          body: { on_hand_g },
        }),
      ),
    [...INGREDIENTS, ...FORMULAS],
  );

export const useLearnName = () =>
  useChange(
    ({ id, phrase }: { id: string; phrase: string }) =>
      api(
        client.POST("/api/ingredients/{ingredient_id}/synonyms", {
          params: { path: { ingredient_id: id } },
          body: { phrase },
        }),
      ),
    INGREDIENTS,
  );

export const useForgetName = () =>
  useChange(
    ({ id, phrase }: { id: string; phrase: string }) =>
      api(
        client.DELETE("/api/ingredients/{ingredient_id}/synonyms/{phrase}", {
          params: { path: { ingredient_id: id, phrase } },
        }),
      ),
    INGREDIENTS,
  );

export const useSaveIngredient = () =>
  useChange(
    ({ id, ingredient }: { id?: string; ingredient: OwnIngredient }) =>
      api(
        id
          ? client.PUT("/api/ingredients/{ingredient_id}", {
              params: { path: { ingredient_id: id } },
              body: ingredient,
            })
          : client.POST("/api/ingredients", { body: ingredient }),
      ),
    INGREDIENTS,
  );

export const useDeleteIngredient = () =>
  useChange(
    (id: string) =>
      api(client.DELETE("/api/ingredients/{ingredient_id}", { params: { path: { ingredient_id: id } } })),
    INGREDIENTS,
  );

/** What would change a formula; asked anew for every draft, so nothing is kept. */
export const findLevers = async (
  formula: FormulaFile,
  band: Band & { portion: number },
  signal?: AbortSignal,
) =>
  (await api(client.POST("/api/levers", { body: { formula, ...band }, ...(signal ? { signal } : {}) })))
    .levers;

export const explainReading = (
  formula: FormulaFile,
  reading: string,
  portion: number,
  signal?: AbortSignal,
) =>
  api(
    client.POST("/api/explanations", { body: { formula, reading, portion }, ...(signal ? { signal } : {}) }),
  );

export type Objective = "least-change" | "cheapest" | "gentlest" | "most-lather";

export const findBalance = async (
  ask: { formula: FormulaFile; targets: Band[]; objective: Objective; locks: string[]; guarded?: boolean },
  signal: AbortSignal,
) => (await api(client.POST("/api/balances", { body: ask, signal }))) as BalanceResult;

export const findSubstitutes = async (formula: FormulaFile, position: number, signal?: AbortSignal) =>
  (await api(client.POST("/api/substitutes", { body: { formula, position }, ...(signal ? { signal } : {}) })))
    .substitutes;

export const swapLine = async (formula: FormulaFile, position: number, ingredient: string) => {
  const answer = await api(client.POST("/api/swaps", { body: { formula, position, ingredient } }));
  return { result: answer.result as BalanceResult, formula: answer.formula };
};

export const drawCharts = async (formula: FormulaFile, portion: number, signal: AbortSignal) =>
  (await api(client.POST("/api/charts", { body: { formula, portion }, signal }))) as Charts;

export const useProfiles = () =>
  useQuery({ queryKey: KEYS.profiles, queryFn: () => api(client.GET("/api/profiles")), staleTime: 30_000 });

const PROFILES = [{ queryKey: KEYS.profiles }];

export interface ProfileDraft {
  name: string;
  summary: string;
  ledger_profile: "adult" | "family" | "sensitive" | "children";
  bands: Band[];
  settings: ProfileSettings;
}

type Settings = components["schemas"]["SettingsSave"];

export const useSaveProfile = () =>
  useChange(({ id, profile }: { id?: string; profile: ProfileDraft }) => {
    const body = { ...profile, settings: profile.settings as Settings };
    return api(
      id
        ? client.PUT("/api/profiles/{profile_id}", { params: { path: { profile_id: id } }, body })
        : client.POST("/api/profiles", { body }),
    );
  }, PROFILES);

export const useDeleteProfile = () =>
  useChange(
    (id: string) =>
      api(client.DELETE("/api/profiles/{profile_id}", { params: { path: { profile_id: id } } })),
    PROFILES,
  );

export const useComparison = (id: number, first: number, second: number, wanted = true) =>
  useQuery({
    queryKey: KEYS.comparison(id, first, second),
    queryFn: async () =>
      (await api(
        client.GET("/api/formulas/{formula_id}/comparison", {
          params: { path: { formula_id: id }, query: { first, second } },
        }),
      )) as Comparison,
    placeholderData: (before) => before,
    staleTime: 0,
    enabled: wanted,
  });

export const getVersion = (id: number, number: number) =>
  api(
    client.GET("/api/formulas/{formula_id}/versions/{number}", {
      params: { path: { formula_id: id, number } },
    }),
  );

export const useBranch = () =>
  useChange(
    ({ id, number, name }: { id: number; number: number; name: string }) =>
      api(
        client.POST("/api/formulas/{formula_id}/versions/{number}/branch", {
          params: { path: { formula_id: id, number } },
          body: { name },
        }),
      ),
    FORMULAS,
  );

/** How many of each mould there are, by tool. */
export const useMoulds = () =>
  useQuery({ queryKey: KEYS.moulds, queryFn: () => api(client.GET("/api/moulds")) });

export const useSaveMoulds = () =>
  useChange(
    ({ tool, count }: { tool: string; count: number | null }) =>
      api(client.PUT("/api/moulds/{tool_id}", { params: { path: { tool_id: tool } }, body: { count } })),
    [{ queryKey: KEYS.moulds }, ...FORMULAS],
  );
