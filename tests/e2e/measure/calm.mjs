import { readFileSync } from 'node:fs';

/** As much may the host take of the processor, as a share, while something is measured. */
const mostStolen = 0.02;
const mostTries = 3;

/** The processor's time so far, and what of it the host gave to others (proc(5), /proc/stat: the eighth figure is stolen time). */
function processor() {
  const [, ...ticks] = readFileSync('/proc/stat', 'utf8').split('\n', 1)[0].split(/\s+/).map(Number);
  const [user, nice, system, , , irq, softirq, stolen] = ticks;
  return { busy: user + nice + system + irq + softirq + stolen, stolen };
}

/** What a measurement comes to, with the share of the time that was needed which the host took away. */
export async function watched(measure) {
  const before = processor();
  const value = await measure();
  const after = processor();
  return { value, stolen: (after.stolen - before.stolen) / Math.max(1, after.busy - before.busy) };
}

/** The measurements that the host disturbed least, so many. It is the host that chooses, not what came of them. */
export function calmest(measurements, count) {
  return [...measurements].sort((a, b) => a.stolen - b.stolen).slice(0, count);
}

export const isCalm = ({ stolen }) => stolen <= mostStolen;

/** Says so where even the calmest was disturbed. */
export function tell(name, measurements) {
  const most = Math.max(...measurements.map((m) => m.stolen));
  if (most > mostStolen)
    console.error(`${name}: the host took ${(100 * most).toFixed(0)} % of the processor meanwhile`);
}

/** Measures in a calm moment: what the host disturbed is measured again, three times in all, and the calmest counts. */
export async function calmly(name, measure) {
  const all = [];
  do all.push(await watched(measure));
  while (!isCalm(all.at(-1)) && all.length < mostTries);
  const best = calmest(all, 1);
  tell(name, best);
  return best[0].value;
}
