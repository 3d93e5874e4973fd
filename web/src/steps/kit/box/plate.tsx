import { ZONES, type Device } from '@yunta/core/rig/device';
import { FIGURE_ORIGINS, ORIGIN_WORDS } from '@yunta/core/rig/figure-source';
import { footSwitches, readSwitchPlaces, switchPlacesText } from '@yunta/core/catalogue/switch-places';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { withMaybe } from '@yunta/core/known/maybe';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { TypedText } from '../../../shared/typed-text.js';
import { ZONE_NAMES } from '../zone-names.js';
import { Numbered } from '../../../shared/numbered.js';

const ORIGINS = FIGURE_ORIGINS.map((value) => ({ value, label: ORIGIN_WORDS[value] }));
const SIDES = ['Width, mm', 'Depth, mm', 'Height, mm'] as const;
const LONGEST_SIDE_MM = 3000;
const HEAVIEST_KG = 200;
const MOST_MONEY = 1_000_000;

/** Name, tag, place, size and weight of a box. */
export const Plate = ({ device, change }: { device: Device; change: (device: Device) => void }) => {
  const { figures } = device;
  const mm = figures.mm ?? [0, 0, 0];
  const figured = (next: Device['figures']) => change({ ...device, figures: next });
  const side = (i: number, to: number) => {
    const [w, d, h] = mm.with(i, to);
    figured({ ...figures, mm: [w ?? 0, d ?? 0, h ?? 0] });
  };
  return (
    <section className="card">
      <h2>Plate</h2>
      <div className="fields">
        <KeptField
          most={LONGEST.name}
          size="xs"
          label="Name"
          value={device.name}
          save={(name) => change({ ...device, name })}
        />
        <KeptField
          most={LONGEST.code}
          size="xs"
          label="Code"
          value={device.code}
          save={(code) => change({ ...device, code: code.toUpperCase() })}
        />
        <Choice
          label="Where it stands"
          data={ZONES.map((z) => ({ value: z, label: ZONE_NAMES[z] }))}
          value={device.zone}
          choose={(zone) => change({ ...device, zone })}
        />
        {SIDES.map((label, i) => (
          <Numbered
            key={label}
            shown
            decimal
            label={label}
            max={LONGEST_SIDE_MM}
            value={mm[i] || undefined}
            save={(v) => side(i, v)}
          />
        ))}
        <Numbered
          shown
          decimal
          label="Weight, kg"
          max={HEAVIEST_KG}
          value={figures.kg}
          save={(kg) => figured({ ...figures, kg })}
          clear={() => figured(withMaybe(figures, 'kg', undefined))}
        />
        <Numbered
          shown
          decimal
          label="What it cost"
          max={MOST_MONEY}
          value={figures.price}
          save={(price) => figured({ ...figures, price })}
          clear={() => figured(withMaybe(figures, 'price', undefined))}
        />
        <Choice
          label="Figures without a note of their own"
          data={ORIGINS}
          value={figures.origin ?? 'assumed'}
          choose={(origin) => figured({ ...figures, origin })}
        />
      </div>
      {footSwitches(device).length > 1 && (
        <div className="switch-places">
          <span>Where its switches are</span>
          <TypedText
            label="Where its switches are"
            placeholder="60 apart, or A 40 30; B 100 30"
            most={LONGEST.text}
            text={switchPlacesText(device)}
            read={(text) => {
              const read = readSwitchPlaces(device, text);
              if (!read.ok) return refuse([read.error]);
              figured(withMaybe(figures, 'switches', read.value));
              return ok(undefined);
            }}
          />
          <span className="soft">
            in mm from the left and the front; whether a shoe fits between two is judged by it
          </span>
        </div>
      )}
      <p className="soft">Sizes and weight are not used yet.</p>
    </section>
  );
};
