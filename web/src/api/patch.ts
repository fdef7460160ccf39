import type { Bench, Drawing, Mark, Schemas, ViewWanted } from "./client";

/** The views to ask for: of those that are held, what changed is enough. */
export function asked(views: ViewWanted[], held: Bench | undefined): Schemas["ViewWanted"][] {
  return views.map((view, index) => {
    const drawing = held?.drawings[index];
    return { ...view, have: drawing?.name === view.name ? drawing.digest : null };
  });
}

/** A bench whose drawings are whole again: what did not change is taken from the one that is held. */
export function whole(bench: Bench, held: Bench | undefined): Bench {
  return { ...bench, drawings: bench.drawings.map((drawing, index) => rebuilt(drawing, held?.drawings[index])) };
}

function rebuilt(drawing: Drawing, held: Drawing | undefined): Drawing {
  if (!drawing.steps) return drawing;
  const before = held?.marks ?? [];
  const marks: Mark[] = [];
  let next = 0;
  for (const [place, kept, fresh] of drawing.steps) {
    // Never a drawing that is silently short: it is asked for anew.
    if (place + kept > before.length) throw new Error(`what changed of ${drawing.name} is of another drawing`);
    for (let k = place; k < place + kept; k++) marks.push(before[k]);
    for (let k = 0; k < fresh; k++) marks.push(drawing.marks[next++]);
  }
  return { ...drawing, marks, steps: null };
}
