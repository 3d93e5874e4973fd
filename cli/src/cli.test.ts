import { islandRun } from '@yunta/core/demo/island-run';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'yunta-cli-'));
const rigFile = join(folder, 'island.yunta.json');
writeFileSync(rigFile, writeRigFile(islandRun()));
afterAll(() => rmSync(folder, { recursive: true }));

const run = (command: string, words: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(command, words, { encoding: 'utf8', cwd: folder });
  return { status, stdout, stderr };
};

/** What the command hands its words to. */
const yunta = (...words: string[]) => run(process.execPath, [join(root, 'cli/dist/main.js'), ...words]);

describe('the command line', () => {
  test('prove, as a person types it: 14 of 16, with footsteps; exit 1', () => {
    const { status, stdout } = run(join(root, 'yunta'), ['prove', 'island.yunta.json']);
    expect(status).toBe(1);
    expect(stdout).toContain('14 of 16 come back. 2 can come back wrong. Hook-up Ballroom.');
    expect(stdout).toMatch(
      /1C {3}Chorus wide: can come back wrong[\s\S]*Stomp Chorus wide, 1C: DLY on\/off off[\s\S]*wanted on/,
    );
  });
  test('prove --json is one document and nothing else', () => {
    const { stdout, stderr } = yunta('prove', rigFile, '--json');
    const said = JSON.parse(stdout) as { sounds: Record<string, { verdict: string }> };
    expect(said.sounds['sound:03']).toMatchObject({ verdict: 'broken', length: 1, variables: { 'device:dly.on': 1 } });
    expect(stderr).toBe('');
  });
  test('prove --system --json says of the reference cases what SPIN said', () => {
    const reference = JSON.parse(readFileSync(join(root, 'core/testing/reference/recall2.json'), 'utf8')) as {
      cases: { id: string; results: Record<string, { verdict: string; length?: number; variables?: unknown }> }[];
    };
    const { status, stdout } = yunta('prove', '--system', join(root, 'core/testing/reference/recall2.json'), '--json');
    expect(status).toBe(1);
    const said = JSON.parse(stdout) as {
      cases: { id: string; sounds: Record<string, { verdict: string; length?: number; variables?: unknown }> }[];
    };
    for (const c of said.cases) {
      const results = reference.cases.find((r) => r.id === c.id)!.results;
      for (const [id, v] of Object.entries(c.sounds))
        expect([c.id, id, v.verdict, v.length, v.variables]).toEqual([
          c.id,
          id,
          results[id]!.verdict,
          results[id]!.length,
          results[id]!.variables,
        ]);
    }
  });
  test('trace: the run as one line', () => {
    expect(yunta('trace', rigFile, '--sound', 'Lead').stdout).toContain(
      'GSC WLS SEL TUN VOL (CMP) [OFZ outside] (LOW) (HIG) [GAT outside] (HED) [MOD outside] (REV) DLY HED CAB',
    );
  });
  test('check: findings with remedies; exit 1', () => {
    const { status, stdout } = yunta('check', rigFile);
    expect(status).toBe(1);
    expect(stdout).toContain('midi.number-shift');
    expect(stdout).toContain('→ Let Yunta write this slot');
  });
  test('compile: bytes in hex and what they are for', () =>
    expect(yunta('compile', rigFile).stdout).toMatch(
      /1D {3}Lead on Eight-loop switcher\n[\s\S]*C2 04 +Stereo delay: program 4/,
    ));
  test('system: a recall system that prove --system takes; --promela: a model', () => {
    const system = join(folder, 'system.json');
    writeFileSync(system, yunta('system', rigFile).stdout);
    expect(yunta('prove', '--system', system).stdout).toContain('sound:03: broken, 1 steps');
    expect(yunta('system', rigFile, '--promela', 'Lead').stdout).toContain('active proctype rig()');
  });
  test('a reader that has seen enough ends it quietly, whatever the verb', () => {
    for (const verb of [
      `prove ${rigFile}`,
      `check ${rigFile}`,
      `compile ${rigFile}`,
      `system ${rigFile}`,
      'demo',
      'help',
    ]) {
      const { stdout, stderr, status } = spawnSync(
        'bash',
        ['-c', `set -o pipefail; '${join(root, 'yunta')}' ${verb} | head -1; exit "\${PIPESTATUS[1]}"`],
        { encoding: 'utf8' },
      );
      expect([verb, stderr, status, stdout.trim().split('\n').length]).toEqual([verb, '', 0, 1]);
    }
  });
  test('a fault of the program is one line and never a verdict: exit 3', () => {
    const broken = join(folder, 'broken.mjs');
    writeFileSync(
      broken,
      `process.stdout.write = () => { throw new TypeError('made to break'); }; process.argv.splice(1, 1); await import(${JSON.stringify(join(root, 'cli/dist/main.js'))});`,
    );
    const { status, stdout, stderr } = run(process.execPath, [broken, 'x', 'prove', rigFile]);
    expect([status, stdout]).toEqual([3, '']);
    expect(stderr.trim().split('\n')).toEqual([
      'A fault in Yunta: made to break. Nothing was judged. Please keep the file: it shows the fault.',
    ]);
  });
  test.each([
    ['no such file', ['prove', 'nowhere.json'], 'nowhere.json cannot be read'],
    [
      'no such sound',
      ['trace', rigFile, '--sound', 'Nothing'],
      'There is no sound "Nothing"; this rig has Verse clean',
    ],
    ['no such hook-up', ['prove', rigFile, '--hookup', 'Moon'], 'There is no hook-up "Moon"; this rig has Ballroom'],
    ['an option without its value', ['trace', rigFile, '--sound'], '--sound needs a value'],
    ['not a rig', ['check', join(root, 'package.json')], 'This JSON is not a rig of Yunta'],
    [
      'not a system',
      ['prove', '--system', join(root, 'package.json')],
      'it needs the lists variables, events and sounds',
    ],
  ])('%s: one line on standard error, exit 2', (_, words, says) => {
    const { status, stdout, stderr } = yunta(...words);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stderr).toContain(says);
  });
});

describe('plan slots', () => {
  interface Planned {
    readonly cases: readonly {
      readonly id: string;
      readonly results?: { readonly stomps: number; readonly bound: number; readonly slots: readonly unknown[] };
    }[];
  }
  const reference = JSON.parse(readFileSync(join(root, 'core/testing/reference/slots.json'), 'utf8')) as {
    readonly cases: readonly {
      readonly id: string;
      readonly copies: number;
      readonly results: { readonly stomps: number };
    }[];
  };
  const some = reference.cases.filter((c) => c.id.includes('tiny') && c.copies === 1);
  const file = join(folder, 'slots.json');
  writeFileSync(file, JSON.stringify({ cases: some }));
  test('finds the optimum of small cases, and HiGHS proves that fewer are not possible', () => {
    const { status, stdout } = yunta('plan', 'slots', file, '--json');
    expect(status).toBe(0);
    const { cases } = JSON.parse(stdout) as Planned;
    expect(cases.map((c) => [c.id, c.results?.stomps, c.results?.bound])).toEqual(
      some.map(({ id, results }) => [id, results.stomps, results.stomps]),
    );
  });
  test('says in words what was found; more sounds than slots is exit 1, another form exit 2', () => {
    const one = { id: 'one', banks: 1, switches: 2, wrap: false, bankKeys: 'both', sounds: 3, copies: 1 };
    const full = join(folder, 'full.json');
    writeFileSync(
      full,
      JSON.stringify({
        cases: [
          { ...one, songs: [[0, 1, 0]] },
          { ...one, id: 'two', songs: [[0, 1, 2]] },
        ],
      }),
    );
    const said = yunta('plan', 'slots', full);
    expect(said).toMatchObject({
      status: 1,
      stdout: 'one: 2 stomps, 0 of them bank keys; fewer are not possible\ntwo: there are more sounds than slots\n',
    });
    expect(yunta('plan', 'slots', rigFile)).toMatchObject({ status: 2, stdout: '' });
    expect(yunta('plan', 'songs', full).stderr).toContain('is not one of slots');
  });
});

describe('plan supply', () => {
  interface Fed {
    readonly id: string;
    readonly results: { readonly powered: number; readonly adapters: number; readonly mixed: number };
  }
  const file = join(root, 'core/testing/reference/supply.json');
  const read = (text: string) => (JSON.parse(text) as { readonly cases: readonly Fed[] }).cases;
  const costs = (cases: readonly Fed[]) =>
    cases.map(({ id, results: { powered, adapters, mixed } }) => [id, powered, adapters, mixed]);
  test('finds the proved optimum of all 30 reference cases (HiGHS, CBC and clingo agreed on them)', () => {
    const { status, stdout } = yunta('plan', 'supply', file, '--json');
    expect(status).toBe(0);
    expect(costs(read(stdout))).toEqual(costs(read(readFileSync(file, 'utf8'))));
  });
  test('says in words what is fed, and that no plan is better', () => {
    const says = yunta('plan', 'supply', file).stdout.split('\n');
    expect(says[0]).toBe(
      'supply-tiny-03: 3 of 3 boxes fed, 1 adapters or bridges, 1 groups mix digital and high gain; no plan is better',
    );
  });
});

describe('load', () => {
  const file = join(root, 'core/testing/reference/loading.json');
  test('works out the circuits of a file in the form of the file, and what is compared', () => {
    const { status, stdout } = yunta('load', '--circuit', file, '--json');
    const read = (text: string) =>
      JSON.parse(text) as { readonly cases: readonly unknown[]; readonly comparisons: unknown };
    expect(status).toBe(0);
    expect(read(stdout).cases).toHaveLength(read(readFileSync(file, 'utf8')).cases.length);
    expect(read(stdout).comparisons).toEqual(read(readFileSync(file, 'utf8')).comparisons);
  });
  test('one circuit alone, in words; what is wrong in one line', () => {
    const alone = join(folder, 'one.json');
    const part = (name: string, n1: string, n2: string, value: number | string) => ({ name, n1, n2, value });
    const divider = (ohm: number) => ({
      id: 'mine',
      topology: 'divider',
      output_node: 'a',
      elements: [part('V1', 'src', '0', 'AC 1'), part('Ro', 'src', 'a', 600), part('Ri', 'a', '0', ohm)],
    });
    writeFileSync(alone, JSON.stringify(divider(600)));
    expect(yunta('load', '--circuit', alone)).toMatchObject({ status: 0, stdout: 'mine: gain_dB -6.0206\n' });
    writeFileSync(alone, JSON.stringify(divider(-1)));
    expect(yunta('load', '--circuit', alone)).toMatchObject({
      status: 2,
      stderr: 'mine: Ri is -1 ohm: no such part can be bought. Mend that circuit in the file.\n',
    });
  });
});

test('power: who is fed by what, and how much each output gives', () => {
  const { status, stdout } = yunta('power', rigFile);
  expect(status).toBe(0);
  expect(stdout).toContain('SUH out1     9 V');
  expect(stdout.trim().split('\n').at(-1)).toBe('11 boxes need 11 outputs; 14 are there.');
});

describe('levels', () => {
  test('all sounds beside each other: the lead that is too loud says what to change', () => {
    const { status, stdout } = yunta('levels', rigFile);
    expect(status).toBe(1);
    expect(stdout).toContain('+9 dB  Last boat: +3 dB off; SWI trim 9 → 4');
    expect(stdout.trim().split('\n')).toHaveLength(16);
  });
  test('one sound stage by stage, as JSON with what hangs on the coils', () => {
    const { status, stdout } = yunta('levels', rigFile, '--sound', 'Lead', '--json');
    expect(status).toBe(0);
    const read = JSON.parse(stdout) as {
      readonly sound: string;
      readonly ways: readonly { readonly outputs: readonly { readonly text: string }[] }[];
      readonly fronts: readonly { readonly pF: number }[];
    };
    expect(read.sound).toBe('Lead');
    expect(read.ways[0]!.outputs.map((o) => o.text)).toContain('Front of house, ch1');
    expect(read.fronts.map((f) => f.pF)).toContain(990);
  });
});
