/** `npm run fuzz -- [--minutes N] [--seed S]`: malformed inputs for so long, each time others. */
import { fuzz } from "./run";

const option = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const seed = option("seed", Date.now() % 1_000_000);
const until = Date.now() + option("minutes", 1) * 60_000;
let [tries, faults] = [0, 0];
for (let from = 0; Date.now() < until; from += 500) {
  const outcome = await fuzz(seed, 500, { from });
  tries += outcome.taken + outcome.refused;
  faults += outcome.faults.length;
  for (const { target, number, why, input } of outcome.faults)
    console.log(`\n── ${target}, seed ${seed}, input ${number}\n${why}\n${input}`);
  console.log(
    `${from + 500} inputs: ${outcome.taken} taken, ${outcome.refused} refused, slowest ${outcome.slowest.name} ${Math.round(outcome.slowest.ms)} ms`,
  );
}
console.log(`\nseed ${seed}: ${tries} inputs went through, ${faults} did not`);
process.exitCode = faults > 0 ? 1 : 0;
