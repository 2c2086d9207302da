/**
 * The share of the usual time for which layouts are searched, from `RUSTIC_TALLY_LAYOUT_TIME`: a fast shop may give 3, tests give
 * less than one. Anything that is no number from 0.05 to 20 counts as 1.
 */
export function layoutTime(): number {
  const share = Number(process.env["RUSTIC_TALLY_LAYOUT_TIME"] ?? "1");
  return share >= 0.05 && share <= 20 ? share : 1;
}
