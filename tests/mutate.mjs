// Changes the rules of one room of the core, a line at a time, and looks whether a test falls; called by ./palaestra mutate
// [ROOM ...] [FILE.cs ...]. With files only these are changed, and what survives is told without being written down.
//
// The room is built as a project of its own in a scratch copy, the rooms before it below and those after it above (the order
// that LayerTests holds): only what is changed carries the tool's switches, and the tests keep their speed.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';

const RULES = ['Capture', 'Screening', 'Findings', 'Planning', 'Visits', 'Progression'];
const REPORT = 'docs/mutation.md';
// Rooms whose tests say little about the rules and take their time in every round.
const WITHOUT = ['Abilities', 'Body', 'Library', 'Outcomes', 'Photos', 'Signals', 'Terms', 'Words'];
// What survives runs them all: with 200 a room of 300 changes took 22 minutes on two cores.
const HISTORIES = '40';

/** Rooms of the core, lowest first, as the test of their order names them. */
function order() {
  const test = readFileSync('tests/Palaestra.Architecture.Tests/LayerTests.cs', 'utf8');
  return [.../string\[\] Rooms =\s*\[([^\]]*)\]/.exec(test)[1].matchAll(/"(\w+)"/g)].map((match) => match[1]);
}

/** A project of the scratch copy with some of the core's rooms. */
function project(folder, references) {
  const friends = ['Palaestra.Core.Tests', 'Palaestra.Core', 'Palaestra.Room', 'Palaestra.Below'];
  return `<Project Sdk="Microsoft.NET.Sdk">
  <PropertyGroup><EnforceCodeStyleInBuild>false</EnforceCodeStyleInBuild><RunAnalyzers>false</RunAnalyzers></PropertyGroup>
  <ItemGroup>
    <PackageReference Include="MathNet.Numerics" />
${references.map((name) => `    <ProjectReference Include="../${name}/${name}.csproj" />\n`).join('')}${friends
    .filter((name) => name !== folder)
    .map((name) => `    <InternalsVisibleTo Include="${name}" />\n`)
    .join('')}  </ItemGroup>
</Project>
`;
}

/** The checkout as it is, uncommitted changes included, with the core in three projects. */
function copy(room, scratch) {
  rmSync(scratch, { recursive: true, force: true });
  mkdirSync(scratch, { recursive: true });
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '-z', 'src', 'tests', 'content', '*.props', '*.json', '*.slnx', '.editorconfig', '.config']);
  execFileSync('bash', ['-c', `tar --null --ignore-failed-read -T - -cf - 2>/dev/null | tar -xf - -C '${scratch}'`], { input: files });
  const core = join(scratch, 'src/Palaestra.Core');
  const rooms = order();
  const place = (folder, names, references) => {
    const root = join(scratch, 'src', folder);
    mkdirSync(root, { recursive: true });
    for (const name of names) renameSync(join(core, name), join(root, name));
    writeFileSync(join(root, `${folder}.csproj`), project(folder, references));
  };
  const at = rooms.indexOf(room);
  place('Palaestra.Below', rooms.slice(0, at), []);
  place('Palaestra.Room', [room], ['Palaestra.Below']);
  writeFileSync(join(core, 'Palaestra.Core.csproj'), project('Palaestra.Core', ['Palaestra.Room', 'Palaestra.Below']));
  const tests = join(scratch, 'tests/Palaestra.Core.Tests/Palaestra.Core.Tests.csproj');
  const reference = '<ProjectReference Include="../../src/Palaestra.Core/Palaestra.Core.csproj" />';
  writeFileSync(
    tests,
    readFileSync(tests, 'utf8').replace(reference, `${reference}\n    <ProjectReference Include="../../src/Palaestra.Room/Palaestra.Room.csproj" />`),
  );
}

/** The tool's report of a room: [{file, line, was, now, status}], what did not compile or was left out aside. */
function run(room, scratch, files) {
  const out = join(scratch, 'out');
  const done = spawnSync(
    'dotnet',
    ['stryker', '-O', out, '-c', String(availableParallelism()), ...files.flatMap((file) => ['-m', `**/${file}`])],
    {
      cwd: join(scratch, 'tests/Palaestra.Core.Tests'),
      stdio: 'inherit',
      env: { ...process.env, PALAESTRA_SOAK: HISTORIES, PALAESTRA_TESTS_WITHOUT: WITHOUT.map((name) => `${name}/**`).join(';') },
    },
  );
  const report = join(out, 'reports/mutation-report.json');
  if (!existsSync(report)) throw new Error(`No report for ${room}: the tool ended with ${done.status}.`);
  return mutants(room, JSON.parse(readFileSync(report, 'utf8')));
}

function mutants(room, report) {
  return Object.entries(report.files).flatMap(([path, { source, mutants }]) => {
    const lines = source.split('\n');
    return mutants
      .filter((m) => ['Killed', 'Survived', 'Timeout', 'NoCoverage'].includes(m.status))
      .map(({ location: { start, end }, replacement, status }) => ({
        file: path.slice(path.lastIndexOf(`/${room}/`) + 1 + room.length + 1),
        line: start.line,
        was: (start.line === end.line ? lines[start.line - 1].slice(start.column - 1, end.column - 1) : lines[start.line - 1].slice(start.column - 1)).trim(),
        now: replacement.trim().split('\n')[0],
        status,
      }));
  });
}

const count = (all, status) => all.filter((m) => m.status === status).length;

/** One row of the table and one section of the report, in the place of those of the room's run before. */
function write(room, all, seconds) {
  const left = all.filter((m) => m.status === 'Survived' || m.status === 'NoCoverage').sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line);
  const score = ((100 * (all.length - left.length)) / all.length).toFixed(1);
  const row = `| ${room} | ${all.length} | ${count(all, 'Killed')} | ${count(all, 'Timeout')} | ${count(all, 'Survived')} | ${count(all, 'NoCoverage')} | ${score} % | ${Math.round(seconds / 60)} min | ${new Date().toISOString().slice(0, 10)} |`;
  const code = (text) => `\`${text.replaceAll('`', "'").replaceAll('|', '\\|').slice(0, 90)}\``;
  const section = [`## ${room}`, '', ...left.map((m) => `- ${m.file}:${m.line} ${code(m.was)} → ${code(m.now)}${m.status === 'NoCoverage' ? ' (no test comes here)' : ''}`), ''].join('\n');
  const before = existsSync(REPORT) ? readFileSync(REPORT, 'utf8') : '';
  const rows = new Map([...before.matchAll(/^\| ([A-Z]\w+) \|.*$/gm)].map((m) => [m[1], m[0]])).set(room, row);
  const sections = new Map([...before.matchAll(/^## (\w+)\n[^]*?(?=^## |$(?![^]))/gm)].map((m) => [m[1], m[0].trimEnd() + '\n'])).set(room, section);
  const known = order().filter((name) => rows.has(name));
  writeFileSync(
    REPORT,
    `# Mutation

Written by \`./palaestra mutate [ROOM ...]\`: each rule of a room is changed in one place after another (\`<\` for \`<=\`, a condition
left out, a term turned round), and the tests of the rules run until one falls. What no test notices stands below. Texts are not
changed (CatalogTests holds them); random histories are ${HISTORIES} a property. A time-out counts as noticed.

| room | changes | noticed | timed out | survived | never run | score | took | on |
|---|---|---|---|---|---|---|---|---|
${known.map((name) => rows.get(name)).join('\n')}

${known.map((name) => sections.get(name)).join('\n')}`,
  );
  console.log(`${room}: ${score} % of ${all.length} changes noticed, ${left.length} left; ${REPORT}`);
}

const asked = process.argv.slice(2);
const rooms = asked.filter((word) => !word.includes('.'));
const files = asked.filter((word) => word.includes('.'));
const unknown = rooms.filter((room) => !order().includes(room));
if (unknown.length > 0) {
  console.error(`No room of the core: ${unknown.join(', ')}. There are ${order().join(', ')}.`);
  process.exit(2);
}
for (const room of rooms.length > 0 ? rooms : RULES) {
  const began = Date.now();
  const scratch = join(process.cwd(), 'artifacts/mutation', room);
  copy(room, scratch);
  const all = run(room, scratch, files);
  // A look at single files is no score of the room.
  if (files.length === 0) write(room, all, (Date.now() - began) / 1000);
  else for (const m of all.filter((m) => m.status === 'Survived' || m.status === 'NoCoverage')) console.log(`${m.file}:${m.line} ${m.was} → ${m.now} (${m.status})`);
}
