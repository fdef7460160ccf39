import type { Schemas } from "../api/client";

export type ElementItem = Schemas["ElementItem"];
type State = Pick<Schemas["State"], "elements">;

const known = new WeakMap<ElementItem[], Map<string, ElementItem>>();

/** What the service says of an element: its name, its kind, and what may be done with it. */
export function itemOf(state: State, id: string | null): ElementItem | undefined {
  let items = known.get(state.elements);
  if (!items) {
    items = new Map(state.elements.map((item) => [item.id, item]));
    known.set(state.elements, items);
  }
  return id === null ? undefined : items.get(id);
}

/** What an element is called. */
export function nameOf(state: State, id: string): string {
  return itemOf(state, id)?.name ?? "note";
}

/** Of some elements, those that can be moved in plan. */
export function movables(state: State, ids: (string | null)[]): string[] {
  return ids.filter((id): id is string => Boolean(itemOf(state, id)?.movable));
}
