import type { Design } from "../api/schema";

/** How many mm make one of the reader's units. */
export function perUnit(design: Design): number {
  return design.units === "cm" ? 10 : 25.4;
}

export function showMm(mm: number, design: Design): string {
  return `${(mm / perUnit(design)).toFixed(1)} ${design.units}`;
}
