import createClient from "openapi-fetch";
import type { components, paths } from "./generated";

export type Schemas = components["schemas"];
export type State = Schemas["State"];
export type Bench = Schemas["Bench"];
export type Result = Schemas["Result"];
export type Drawing = Schemas["DrawingOut"];
export type Mark = Drawing["marks"][number];
export type Stroke = Schemas["Stroke"];
export type Region = Schemas["Region"];
export type TextMark = Schemas["Text"];
export type Handle = Schemas["Handle"];
export type Edit = Schemas["EditsIn"]["edits"][number];
/** A view to show; whether the screen holds it is said when it is asked for. */
export type ViewWanted = Omit<Schemas["ViewWanted"], "have">;
export type SumTable = Schemas["SumTable"];
export type Problem = Schemas["Problem"];

export const api = createClient<paths>({ baseUrl: "/" });

/** An error of the service, with the place of the mistake. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server did not answer at all. */
export class Unreachable extends Error {}

type Answer = { data?: unknown; error?: unknown; response: Response };

/** The data of an answer, of the shape that its route declares (the client's own inference widens tuples to lists);
 * throws Refusal with the problem, or Unreachable. */
export async function unwrap<T>(call: Promise<Answer>): Promise<T> {
  let answer: Answer;
  try {
    answer = await call;
  } catch {
    throw new Unreachable("The server cannot be reached. Nothing is lost; what you see was saved.");
  }
  if (answer.data !== undefined && answer.response.ok) return answer.data as T;
  const problem = answer.error as Problem | undefined;
  throw new Refusal(
    problem?.detail
      ? problem
      : {
          type: "about:blank",
          title: "failed",
          status: answer.response.status,
          detail: "The server did not understand that.",
        },
  );
}
