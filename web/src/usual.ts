import { sizes } from "../../deepsection/core/catalog/data/usual.json";

const INCH = 25.4;

const SIZES = new Map(sizes.map((size) => [size.id, size]));

/** What a new thing begins with (mm), by name, in a project of these units: the table of the service. */
export function usual(id: string, units: "ft-in" | "mm"): number {
  const size = SIZES.get(id);
  if (!size) throw new Error(`no usual size is called ${id}`);
  return units === "ft-in" ? size.in * INCH : size.mm;
}
