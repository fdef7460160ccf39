const QUARTERS = ["", "1/4", "1/2", "3/4"];

/** A length while it is drawn or dragged, to a quarter inch or a millimetre; what is kept, the service reads and writes. */
export function lengthText(mm: number, units: "ft-in" | "mm"): string {
  if (units === "mm") return `${Math.round(mm)}`;
  const quarters = Math.round(Math.abs(mm) / 6.35);
  const feet = Math.floor(quarters / 48);
  const inches = Math.floor((quarters % 48) / 4);
  const rest = QUARTERS[quarters % 4];
  return `${mm < 0 && quarters ? "-" : ""}${feet}'-${inches}${rest ? ` ${rest}` : ""}"`;
}
