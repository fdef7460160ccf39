import { useSyncExternalStore } from "react";
import { ProjectList } from "./features/projects/ProjectList";
import { Workspace } from "./features/shell/Workspace";

function subscribe(listen: () => void) {
  window.addEventListener("popstate", listen);
  return () => window.removeEventListener("popstate", listen);
}

/** Go to a page of the application without loading it anew. */
export function goTo(path: string) {
  window.history.pushState(null, "", path);
  window.dispatchEvent(new PopStateEvent("popstate"));
}

export function App() {
  const path = useSyncExternalStore(subscribe, () => window.location.pathname);
  const project = /^\/project\/([A-Za-z][\w-]*)/.exec(path)?.[1];
  return project ? (
    <Workspace key={project} id={project} onLeave={() => goTo("/")} />
  ) : (
    <ProjectList onOpen={(id) => goTo(`/project/${id}`)} />
  );
}
