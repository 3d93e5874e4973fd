import { renderToStaticMarkup } from 'react-dom/server';
import { MapPage, type Drawn } from './map-page.js';

/** The map as a picture that any program can show (SVG 1.1). */
export const mapSvg = (drawn: Drawn): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${renderToStaticMarkup(<MapPage {...drawn} title={drawn.title.replaceAll(/[^\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, '')} />)}\n`;
