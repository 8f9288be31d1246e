/** A school year as far as drawing it goes. */
export type DrawnYear = { label: string; terms: { first: string; last: string }[] };

const day = (d: string) => Date.parse(`${d}T00:00:00Z`) / 86_400_000;
const first = (y: DrawnYear) => Math.min(...y.terms.map((t) => day(t.first)));
const last = (y: DrawnYear) => Math.max(...y.terms.map((t) => day(t.last)));

/** The year that most of some days lie in; undefined where none does. */
export function yearOver<Y extends DrawnYear>(years: readonly Y[], days: readonly string[]): Y | undefined {
  const within = (y: Y) => days.filter((d) => day(d) >= first(y) && day(d) <= last(y)).length;
  return years
    .filter((y) => y.terms.length > 0 && within(y) > 0)
    .sort((a, b) => within(b) - within(a))
    .at(0);
}

/** Where a day lies in a year, from 0 at its first to 1 at its last; what lies outside stands at its end. */
export function placeIn(year: DrawnYear, of: string) {
  const span = last(year) - first(year);
  return span === 0 ? 0 : Math.min(1, Math.max(0, (day(of) - first(year)) / span));
}
