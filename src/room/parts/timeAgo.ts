const FORMAT = new Intl.RelativeTimeFormat('en', { numeric: 'always' });
const UNITS = [
  ['year', 365.25 * 86400],
  ['month', 30.44 * 86400],
  ['day', 86400],
  ['hour', 3600],
  ['minute', 60],
] as const;

/** "3 days ago". @param seconds at least 0 */
export function timeAgo(seconds: number): string {
  const [unit, long] = UNITS.find(([, least]) => seconds >= 2 * least) ?? ['second', 1];
  return FORMAT.format(-Math.round(seconds / long), unit);
}
