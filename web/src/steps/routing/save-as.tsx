import { Button, Menu } from '@mantine/core';
import type { LevelsShown } from '@yunta/core/derive/views/levels-shown';
import type { Layer, Lit } from '@yunta/core/signal/drawing/map';
import { rigName } from '@yunta/core/rig/rig';
import { useRig } from '../../shared/rig-context.js';
import { fileName, saveFile } from '../../shared/save-file.js';
import { MapPage } from '../../picture/map-page.js';
import { Paper, usePrinting } from '../../shared/paper/paper.js';
import type { LaidMap } from '../../picture/map-layout.js';

/** The routing for other programs: a picture, a graph, a table. */
export const SaveAs = ({
  laid,
  lit,
  levels,
  layers,
  soundName,
}: {
  laid: LaidMap;
  lit: Lit | undefined;
  levels?: LevelsShown | undefined;
  layers: ReadonlySet<Layer>;
  soundName: string | undefined;
}) => {
  const { rig, hookup } = useRig();
  const isPrinting = usePrinting();
  if (!hookup) return null;
  const name = fileName(rigName(rig), hookup.name);
  const title = `${rigName(rig)}, ${hookup.name}`;
  const map = { boxes: laid.boxes.map((b) => b.box), cables: laid.cables.map((c) => c.cable) };
  const svg = async () =>
    saveFile(
      `${name}.svg`,
      (await import('../../picture/map-svg.js')).mapSvg({
        laid,
        lit,
        levels,
        layers,
        title: soundName ? `${title}: ${soundName}` : title,
      }),
      'image/svg+xml',
    );
  const graphml = async () =>
    saveFile(`${name}.graphml`, (await import('@yunta/core/formats/graphs')).routingGraphml(map), 'application/xml');
  const dot = async () =>
    saveFile(`${name}.dot`, (await import('@yunta/core/formats/graphs')).routingDot(map, title), 'text/vnd.graphviz');
  const csv = async () =>
    saveFile(`${name}.csv`, (await import('@yunta/core/formats/tables')).cablesCsv(rig, hookup.id), 'text/csv');
  return (
    <>
      {isPrinting && (
        <Paper title={soundName ? `Map: ${soundName}` : 'Map'} wide>
          <div className="paper-map">
            <MapPage
              laid={laid}
              lit={lit}
              levels={levels}
              layers={layers}
              title={soundName ? `${title}: ${soundName}` : title}
            />
          </div>
        </Paper>
      )}
      <Menu position="top-end">
        <Menu.Target>
          <Button size="compact-xs" variant="default">
            Save as …
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => void svg()}>Picture (SVG)</Menu.Item>
          <Menu.Item onClick={() => void csv()}>Cable list (CSV)</Menu.Item>
          <Menu.Item onClick={() => void graphml()}>Graph (GraphML)</Menu.Item>
          <Menu.Item onClick={() => void dot()}>Graph (DOT)</Menu.Item>
          <Menu.Item onClick={() => window.print()}>Print it</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </>
  );
};
