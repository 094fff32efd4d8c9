/**
 * `npm run mutants`: changes core in every small way and tells what no test noticed. First each room's own tests are run,
 * which is quick; then all of core's for what they did not notice. With a file's path it does that file.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { binOf, install, run, runScript } from './setup.mjs';

const FOLDER = 'test-results/mutants';

/** Runs the tests of a room, or of all for `**`, over the mutants of some places; answers the mutants. */
function mutate(room, places) {
  const stryker = binOf('@stryker-mutator/core', 'stryker');
  run(process.execPath, [stryker, 'run', '--mutate', places.join(',')], { TRIVET_ROOM: room });
  const { files } = JSON.parse(readFileSync(`${FOLDER}/report.json`, 'utf8'));
  return Object.entries(files).flatMap(([path, { mutants }]) =>
    mutants.map(({ mutatorName, replacement, status, location }) => ({
      path,
      mutatorName,
      replacement,
      status,
      location,
    })),
  );
}

const isMissed = ({ status }) => status === 'Survived' || status === 'NoCoverage';
const keyOf = ({ path, location, replacement }) => JSON.stringify([path, location, replacement]);
/** Columns of places count from nought, those of reports from one. */
const placeOf = ({ path, location: { start, end } }) =>
  `${path}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`;

install();
const [file] = process.argv.slice(2);
const rooms = file ? [file.split('/')[2]] : ['condition', 'gate', 'policy', 'text'];
const mutants = rooms.flatMap((room) =>
  mutate(room, file ? [file] : [`src/core/${room}/**/*.ts`, '!**/*.test.ts', '!**/index.ts']),
);
const missed = mutants.filter(isMissed);
const again = new Map(
  missed.length === 0 ? [] : mutate('**', missed.map(placeOf)).map((one) => [keyOf(one), one]),
);
writeFileSync(
  `${FOLDER}/mutants.json`,
  JSON.stringify(mutants.map((one) => (isMissed(one) ? (again.get(keyOf(one)) ?? one) : one))),
);
runScript('scripts/survivors.ts');
