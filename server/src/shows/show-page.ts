import type { ShowRequest, ShownCue } from './requests.js';

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};
const safe = (text: string): string => text.replaceAll(/[&<>"']/g, (c) => ENTITIES[c] ?? c);

/** Others look on from afar: large, dark, nothing to press. */
const STYLE = `
html{background:#131412;color:#f2eee2;font:clamp(17px,2.6vmin,28px)/1.3 system-ui,sans-serif}
body{margin:2vh 3vw}
h1{font-size:2.4em;margin:0;overflow-wrap:anywhere}
h2{font-size:1em;color:#b9b5a6;margin:2vh 0 0}
p{margin:.2em 0}
.cue{font-size:1.8em}
.hit{font-size:3em;font-weight:700;color:#ffc145}
.soft{color:#b9b5a6}
ol{padding-left:1.6em;columns:20em}
[aria-current]{color:#ffc145;font-weight:700}`;

const EVERY_MS = 2000;

/** Looks again and again, and shows what has changed; where the player's machine does not answer the page stays. */
export const SHOW_SCRIPT = `
const main = document.querySelector('main');
const look = async () => {
  const text = await (await fetch(location.pathname, { cache: 'no-store' })).text();
  const next = new DOMParser().parseFromString(text, 'text/html').querySelector('main');
  if (next && next.innerHTML !== main.innerHTML) main.replaceChildren(...next.childNodes);
};
setInterval(() => look().catch(() => undefined), ${EVERY_MS});
`;
export const SCRIPT_PATH = '/show.js';

const page = (title: string, body: string, isLive: boolean): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta name="robots" content="noindex">${isLive ? `<script type="module" src="${SCRIPT_PATH}"></script>` : ''}
<title>${safe(title)}</title><style>${STYLE}</style></head><body>${body}</body></html>`;

const cueText = (cue: ShownCue | undefined): string =>
  cue
    ? `<p class="cue">${safe(cue.name)}</p><p><span class="hit">${safe([cue.bank, cue.hit].filter(Boolean).join(', '))}</span> ${safe(cue.sound ?? '')}</p>${cue.hands.length ? `<p>${safe(cue.hands.join(', '))}</p>` : ''}`
    : '';

/** A night for others on the same network: what is played now, what comes next, and all songs. */
export const showPage = ({ name, songs, song, cue }: ShowRequest): string => {
  const now = songs[song];
  const next = now?.cues[cue + 1];
  const following = songs[song + 1];
  const list = songs.map((s, i) => `<li${i === song ? ' aria-current="true"' : ''}>${safe(s.title)}</li>`).join('');
  return page(
    name,
    `<main aria-live="polite"><p class="soft">${safe(name)}, song ${songs.length ? song + 1 : 0} of ${songs.length}; to look at only</p>
<h1>${safe(now?.title ?? 'No song')}</h1><p class="soft">${safe(now?.facts ?? '')}</p>${cueText(now?.cues[cue])}
<h2>Next</h2><p>${safe(next ? [next.name, next.bank, next.hit].filter(Boolean).join(', ') : (following?.title ?? 'The end'))}</p>
<h2>All songs</h2><ol>${list}</ol></main>`,
    true,
  );
};

/** What somebody sees whose link was taken back, or who mistyped it. */
export const withdrawnPage = (): string =>
  page(
    'No longer shown',
    '<main><h1>This is no longer shown</h1><p>The link was withdrawn, or it is mistyped. Ask whoever gave it to you for a new one.</p></main>',
    false,
  );
