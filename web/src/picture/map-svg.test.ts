import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { levelsShown } from '@yunta/core/derive/views/levels-shown';
import { soundTrace } from '@yunta/core/derive/views/view';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import { LAYERS, litBy, mapOf } from '@yunta/core/signal/drawing/map';
import ELK from 'elkjs/lib/elk.bundled.js';
import { spawnSync } from 'node:child_process';
import { layMap } from './map-layout.js';
import { mapSvg } from './map-svg.js';

const drawn = async (id: string, title: string) => {
  const rig = DEMO_RIGS.find((r) => r.id === id)!.make();
  const derived = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
  const map = mapOf(rig, derived.anatomy);
  const laid = await layMap(map, new ELK());
  const lit = soundTrace(derived, soundsInOrder(rig)[0]!.id);
  const levels = levelsShown(rig, lit);
  return {
    map,
    levels,
    svg: mapSvg({ laid, lit: litBy(lit), levels, layers: new Set(LAYERS), title }),
  };
};

// Reference: xmllint of Debian (libxml2).
test.each(DEMO_RIGS.map((r) => r.id))(
  'the picture of %s is well-formed, also with quotes in its title, and holds every box and cable',
  async (id) => {
    const { map, levels, svg } = await drawn(id, 'A "loud" <deck> & \u0007🎸');
    const run = spawnSync('xmllint', ['--noout', '-'], { input: svg, encoding: 'utf8' });
    expect(run.stderr).toBe('');
    expect(run.status).toBe(0);
    expect(svg.match(/class="map-lead /g)).toHaveLength(map.cables.length);
    for (const box of map.boxes) expect(svg).toContain(`>${box.code}</text>`);
    expect(svg).toContain('map-lead instrument lit');
    expect(svg.match(/−?\d+(\.\d)? dBu</g)).toHaveLength(Object.keys(levels.boxes).length);
  },
);
