import {
  keepPreviousData,
  type QueryClient,
  useIsMutating,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import {
  api,
  type Bench,
  type Edit,
  Refusal,
  type Result,
  type Schemas,
  type State,
  unwrap,
  type ViewWanted,
} from "./client";
import { asked, whole } from "./patch";

const keys = {
  projects: ["projects"] as const,
  result: (id: string, views: ViewWanted[]) => ["project", id, "views", JSON.stringify(views)] as const,
  project: (id: string) => ["project", id] as const,
  version: (id: string) => ["version", id] as const,
  change: (id: string) => ["change", id] as const,
};

/** Changes of a project go one after the other, and are known as changes while they are under way. */
const changes = (id: string) => ({ mutationKey: keys.change(id), scope: { id: `changes-${id}` } });

/** Whether a change of a project is under way, by whatever way it was made. */
export function useSaving(id: string) {
  return useIsMutating({ mutationKey: keys.change(id) }) > 0;
}

export function useProjects() {
  return useQuery({
    queryKey: keys.projects,
    queryFn: () => unwrap<Schemas["ProjectItem"][]>(api.GET("/api/projects")),
  });
}

/** Wall sections that would be usual in a house as it is, each with what it would show. */
export function useUsualPlaces(id: string, version: number) {
  return useQuery({
    queryKey: [...keys.project(id), "usual-places", version],
    queryFn: () =>
      unwrap<Schemas["UsualPlace"][]>(api.GET("/api/projects/{id}/usual-places", { params: { path: { id } } })),
  });
}

/** Where parts of a house meet, in groups of those that are built alike. */
export function useJunctions(id: string, version: number) {
  return useQuery({
    queryKey: [...keys.project(id), "junctions", version],
    queryFn: () =>
      unwrap<Schemas["JunctionGroupOut"][]>(api.GET("/api/projects/{id}/junctions", { params: { path: { id } } })),
    placeholderData: (previous) => previous,
  });
}

/** When what is shown came from the service; 0 while what was shown before stands in for it. */
const came = (found: { isPlaceholderData: boolean; dataUpdatedAt: number }) =>
  found.isPlaceholderData ? 0 : found.dataUpdatedAt;

/** How the junction of a detail is built; nothing is asked where there is none. */
export function useBuilt(id: string, version: number, detail: string | null) {
  const found = useQuery({
    queryKey: [...keys.project(id), "built", version, detail],
    queryFn: () =>
      unwrap<Schemas["BuiltOut"]>(
        api.GET("/api/projects/{id}/built", { params: { path: { id }, query: { detail: detail ?? "" } } }),
      ),
    enabled: detail !== null,
    // What was built before stays until the answer comes, so that nothing typed is lost.
    placeholderData: (previous, query) => (query?.queryKey.at(-1) === detail ? previous : undefined),
    retry: false,
  });
  return { data: found.data, came: came(found) };
}

export function useCreateProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewProject"]) => unwrap<State>(api.POST("/api/projects", { body })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.projects }),
  });
}

export function useImportProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) => {
      const text = await file.text();
      return unwrap<State>(
        api.POST("/api/projects/import", { body: text as never, bodySerializer: (body) => body as unknown as string }),
      );
    },
    onSuccess: () => client.invalidateQueries({ queryKey: keys.projects }),
  });
}

/** What a request that sends a file as its body is asked with. */
async function withFile(file: File, params: object) {
  const body = await file.arrayBuffer();
  return { params, body: body as never, bodySerializer: (held: unknown) => held as never } as never;
}

/** How far the reading of a file is that was asked for under a name, while it is not done. */
export function usePlanProgress(name: string, reading: boolean) {
  return useQuery({
    queryKey: ["plan-progress", name],
    queryFn: () =>
      unwrap<Schemas["PlanProgress"]>(api.GET("/api/plan-progress/{asked}", { params: { path: { asked: name } } })),
    enabled: reading,
    refetchInterval: 400,
    gcTime: 0,
  });
}

/** What is found in a floor plan or a model in a file, before it is built; `name`: its progress is told under it. */
export function usePlanLook(id: string, version: number, file: File, choices: object, name: string) {
  const asked = JSON.stringify(choices);
  return useQuery({
    queryKey: ["plan-look", id, version, file.name, file.size, file.lastModified, asked],
    queryFn: async () => {
      const sent = await withFile(file, { path: { id }, query: { choices: asked, asked: name } });
      return unwrap<Schemas["PlanLook"]>(api.POST("/api/projects/{id}/plan/look", sent));
    },
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}

const page = (file: string, number: number) => ({
  queryKey: ["page", file, number],
  queryFn: () =>
    unwrap<Schemas["PageOut"]>(
      api.GET("/api/files/{digest}/pages/{page}", { params: { path: { digest: file, page: number } } }),
    ),
  // What is named by its content never changes.
  staleTime: Number.POSITIVE_INFINITY,
  retry: false,
});

/** What a page of a file shows that lies under a view. */
export function usePage(file: string, number: number) {
  return useQuery(page(file, number));
}

/** The same, of several. */
export function usePages(held: readonly { file: string; page: number }[]) {
  return useQueries({ queries: held.map((one) => page(one.file, one.page)) });
}

/** Lays a file under a view, as one step. */
export function useLayBackground(id: string, version: number) {
  const client = useQueryClient();
  return useMutation({
    ...changes(id),
    mutationFn: async ({ file, view }: { file: File; view: string }) => {
      const query = { base_version: version, view, name: file.name };
      const sent = await withFile(file, { path: { id }, query });
      return unwrap<Schemas["BackgroundOut"]>(api.POST("/api/projects/{id}/backgrounds", sent));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: keys.project(id) }),
  });
}

/** Builds the floor plan or the model of a file into the project, as one step. */
export function useReadPlan(id: string, version: number) {
  const client = useQueryClient();
  return useMutation({
    ...changes(id),
    mutationFn: async ({ file, choices }: { file: File; choices: object }) => {
      const query = { base_version: version, choices: JSON.stringify(choices) };
      const sent = await withFile(file, { path: { id }, query });
      return unwrap<Schemas["PlanOut"]>(api.POST("/api/projects/{id}/plan", sent));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: keys.project(id) }),
  });
}

export function useCopyProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => unwrap<State>(api.POST("/api/projects/{id}/copy", { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.projects }),
  });
}

export function useChangeProject() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, ...body }: { id: string; name?: string; archived?: boolean }) =>
      unwrap<Schemas["ProjectItem"]>(api.PATCH("/api/projects/{id}", { params: { path: { id } }, body })),
    onSuccess: () => client.invalidateQueries(),
  });
}

/** What was done, the latest first. */
export function useHistory(id: string, version: number) {
  return useQuery({
    queryKey: ["project", id, "history", version],
    queryFn: () =>
      unwrap<Schemas["HistoryItem"][]>(api.GET("/api/projects/{id}/history", { params: { path: { id } } })),
    placeholderData: keepPreviousData,
  });
}

export function useNamePoint(id: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ version, mark }: { version: number; mark: string | null }) =>
      unwrap<Schemas["HistoryItem"][]>(
        api.PUT("/api/projects/{id}/history/{version}", { params: { path: { id, version } }, body: { mark } }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["project", id, "history"] }),
  });
}

/** The make-ups of another project. */
export function useProjectState(id: string | null) {
  return useQuery({
    queryKey: ["state", id],
    queryFn: () => unwrap<State>(api.GET("/api/projects/{id}", { params: { path: { id: id ?? "" } } })),
    enabled: Boolean(id),
  });
}

/** Views of a version that was known to be behind are asked for so many times more. */
const STALE_ASKS = 3;

/** The saved state with the views that the screen shows. */
export function useResult(id: string, views: ViewWanted[]) {
  const client = useQueryClient();
  return useQuery({
    queryKey: keys.result(id, views),
    queryFn: async () => {
      for (let left = STALE_ASKS; ; left--) {
        const result = await unwrap<Result>(
          api.POST("/api/projects/{id}/views", { params: { path: { id } }, body: { views: asked(views, undefined) } }),
        );
        // A change that was kept meanwhile is not covered by what was asked for before it.
        if (left === 0 || result.state.version >= (client.getQueryData<number>(keys.version(id)) ?? 0)) return result;
      }
    },
    placeholderData: keepPreviousData,
  });
}

export type Change =
  | { kind: "edits"; edits: Edit[] }
  | { kind: "entry"; element: string; others?: string[]; field: string; text: string }
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "back"; version: number | null }
  | { kind: "make-up"; project: string; make_up: string }
  | { kind: "saved-wall"; project: string; saved_wall: string }
  | { kind: "place"; sheet: string; view: string; scale: number }
  | { kind: "usual" }
  | { kind: "align"; sheet: string }
  | { kind: "details"; keys: string[] | null }
  | { kind: "detail-sheets" }
  | { kind: "built"; change: BuiltChange }
  | { kind: "engineer"; view: string; answer?: string }
  | ({ kind: "figure" } & Omit<Schemas["FigureIn"], "base_version" | "views">)
  | ({ kind: "note" } & Omit<Schemas["NoteIn"], "base_version" | "views">);

/** A change of how junctions are built. */
export type BuiltChange = Omit<Schemas["BuildUpIn"], "base_version" | "views" | "on" | "text" | "usual"> & {
  on?: boolean;
  text?: string;
  usual?: boolean;
};

async function send(id: string, base_version: number, views: Schemas["ViewWanted"][], change: Change): Promise<Result> {
  const params = { path: { id } };
  if (change.kind === "edits")
    return unwrap<Result>(
      api.POST("/api/projects/{id}/edits", { params, body: { base_version, edits: change.edits, views } }),
    );
  if (change.kind === "entry") {
    const { element, others = [], field, text } = change;
    return unwrap<Result>(
      api.POST("/api/projects/{id}/entries", { params, body: { base_version, element, others, field, text, views } }),
    );
  }
  if (change.kind === "back")
    return unwrap<Result>(
      api.POST("/api/projects/{id}/back", { params, body: { base_version, version: change.version, views } }),
    );
  if (change.kind === "usual")
    return unwrap<Result>(api.POST("/api/projects/{id}/usual-set", { params, body: { base_version, views } }));
  if (change.kind === "details")
    return unwrap<Result>(
      api.POST("/api/projects/{id}/details", { params, body: { base_version, keys: change.keys, views } }),
    );
  if (change.kind === "detail-sheets")
    return unwrap<Result>(api.POST("/api/projects/{id}/detail-sheets", { params, body: { base_version, views } }));
  if (change.kind === "built")
    return unwrap<Result>(
      api.POST("/api/projects/{id}/built", {
        params,
        body: { on: true, text: "", usual: false, ...change.change, base_version, views },
      }),
    );
  if (change.kind === "align")
    return unwrap<Result>(
      api.POST("/api/projects/{id}/sheets/{sheet}/levels", {
        params: { path: { id, sheet: change.sheet } },
        body: { base_version, views },
      }),
    );
  if (change.kind === "engineer") {
    const { view, answer } = change;
    return unwrap<Result>(
      api.POST("/api/projects/{id}/engineer", { params, body: { base_version, view, answer, views } }),
    );
  }
  if (change.kind === "figure") {
    const { kind: _, ...figure } = change;
    return unwrap<Result>(api.POST("/api/projects/{id}/figures", { params, body: { ...figure, base_version, views } }));
  }
  if (change.kind === "note") {
    const { kind: _, ...note } = change;
    return unwrap<Result>(api.POST("/api/projects/{id}/notes", { params, body: { ...note, base_version, views } }));
  }
  if (change.kind === "place") {
    const { sheet, view, scale } = change;
    return unwrap<Result>(
      api.POST("/api/projects/{id}/sheets/{sheet}/views", {
        params: { path: { id, sheet } },
        body: { base_version, view, scale, views },
      }),
    );
  }
  if (change.kind === "make-up") {
    const { project, make_up } = change;
    return unwrap<Result>(
      api.POST("/api/projects/{id}/make-ups", { params, body: { base_version, project, make_up, views } }),
    );
  }
  if (change.kind === "saved-wall") {
    const { project, saved_wall } = change;
    return unwrap<Result>(
      api.POST("/api/projects/{id}/saved-walls", { params, body: { base_version, project, saved_wall, views } }),
    );
  }
  if (change.kind === "undo")
    return unwrap<Result>(api.POST("/api/projects/{id}/undo", { params, body: { base_version, views } }));
  return unwrap<Result>(api.POST("/api/projects/{id}/redo", { params, body: { base_version, views } }));
}

/** Keep a result: it replaces what the screen shows; views of before are dropped, all else is asked for again. */
function keep(client: QueryClient, id: string, views: ViewWanted[], result: Result) {
  // Its views may be none that the screen shows any more, and are dropped then: the version that it made stays known.
  client.setQueryData(keys.version(id), result.state.version);
  client.setQueryData(keys.result(id, views), result);
  const shown = JSON.stringify(keys.result(id, views));
  client.removeQueries({ queryKey: ["project", id, "views"], type: "inactive" });
  client.invalidateQueries({
    queryKey: keys.project(id),
    predicate: (query) => JSON.stringify(query.queryKey) !== shown,
  });
}

/** The bench of a version that the screen holds, where it does. */
function heldBench(client: QueryClient, id: string, version: number, views: ViewWanted[]): Bench | undefined {
  const result = client.getQueryData<Result>(keys.result(id, views));
  return result?.state.version === version ? result.bench : undefined;
}

/** Sends one change after the other, each against the version that the one before it made. */
export function useChange(id: string, views: ViewWanted[]) {
  const client = useQueryClient();
  return useMutation({
    ...changes(id),
    mutationFn: (change: Change) => {
      const held = client.getQueriesData<Result>({ queryKey: ["project", id, "views"] });
      const made = client.getQueryData<number>(keys.version(id)) ?? 0;
      const version = Math.max(made, ...held.map(([, result]) => result?.state.version ?? 0));
      const base = heldBench(client, id, version, views);
      // The screen may want other views by the time of the answer: it is kept as that of those that were asked for.
      return send(id, version, asked(views, base), change).then((result) => {
        const kept = { ...result, bench: whole(result.bench, base) };
        keep(client, id, views, kept);
        return kept;
      });
    },
    onError: (error) => {
      if (!(error instanceof Refusal) || error.problem.status === 409) {
        client.removeQueries({ queryKey: keys.version(id) });
        client.invalidateQueries({ queryKey: keys.project(id) });
      }
    },
  });
}

/** Views as they would be after edits, or after a text was typed into a field. */
export async function preview(
  client: QueryClient,
  id: string,
  base_version: number,
  sequence: number,
  wanted: Pick<Schemas["PreviewIn"], "edits" | "entry" | "draft">,
  views: ViewWanted[],
) {
  const base = heldBench(client, id, base_version, views);
  const bench = await unwrap<Bench>(
    api.POST("/api/projects/{id}/preview", {
      params: { path: { id } },
      body: { base_version, sequence, ...wanted, views: asked(views, base) },
    }),
  );
  return whole(bench, base);
}

export function useParticulars(id: string, element: string, version: number) {
  const found = useQuery({
    queryKey: ["project", id, "particulars", element, version],
    queryFn: () =>
      unwrap<Schemas["Particulars"]>(
        api.GET("/api/projects/{id}/particulars/{element}", { params: { path: { id, element } } }),
      ),
    placeholderData: (previous) => (previous?.element === element ? previous : undefined),
    retry: false,
  });
  return { data: found.data, error: found.error, isLoading: found.isLoading, came: came(found) };
}

/** The heights of two views, row by row. */
export function useCompared(id: string, one: string, other: string | null, version: number) {
  return useQuery({
    queryKey: ["project", id, "compared", one, other, version],
    queryFn: () =>
      unwrap<Schemas["ComparedRow"][]>(
        api.GET("/api/projects/{id}/compare", { params: { path: { id }, query: { one, other: other ?? "" } } }),
      ),
    enabled: Boolean(other),
    placeholderData: keepPreviousData,
  });
}

/** The house as triangles. */
export function useSolids(id: string, version: number) {
  return useQuery({
    queryKey: ["project", id, "solids", version],
    queryFn: () => unwrap<Schemas["Solids"]>(api.GET("/api/projects/{id}/solids", { params: { path: { id } } })),
    placeholderData: (previous) => previous,
  });
}

export function useSheet(id: string, sheet: string | undefined, version: number) {
  return useQuery({
    queryKey: ["project", id, "sheet", sheet, version],
    queryFn: () =>
      unwrap<Schemas["SheetOut"]>(
        api.GET("/api/projects/{id}/sheets/{sheet}", { params: { path: { id, sheet: sheet ?? "" } } }),
      ),
    enabled: Boolean(sheet),
    placeholderData: keepPreviousData,
  });
}

export function readLength(text: string, units: "ft-in" | "mm") {
  return unwrap<Schemas["Length"]>(api.GET("/api/lengths", { params: { query: { text, units } } }));
}
