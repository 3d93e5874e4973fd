import { renderToStaticMarkup } from 'react-dom/server';
import { BoardDrawing, type BoardShown } from './board-drawing.js';

/** What the page's style sheet says of a board, for programs that do not have it: ink on paper. */
const STYLE = `
.board-plate{fill:#fff;stroke:#222;stroke-width:3}
.board-slots rect{fill:#eee;stroke:#bbb}
.board-box rect{fill:#f7f7f2;stroke:#222;stroke-width:2}
.board-box.wrong rect{stroke:#a63d2f;stroke-width:4;stroke-dasharray:10 6}
.board-front{stroke:#222;stroke-width:4;fill:none}
.board-box text{font-family:sans-serif;text-anchor:middle;fill:#222}
.board-mark{font-size:26px;font-weight:bold}
.board-plug{fill:#bbb;stroke:#555}
.board-lead{fill:none;stroke:#c98a00;stroke-width:4;stroke-opacity:.7}
.board-lead.over{stroke-dasharray:2 8}
.board-lead.under{stroke-dasharray:14 8}
.board-centre circle,.board-centre path{fill:none;stroke:#2f6b52;stroke-width:3}
.board-edge{font-family:sans-serif;font-size:18px;text-anchor:middle;fill:#555}
`;

/** A board as a picture to scale that any program can show and print at its true size (SVG 1.1, in mm). */
export const boardSvg = (shown: BoardShown, title: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${renderToStaticMarkup(
    <BoardDrawing {...shown} title={title}>
      <style>{STYLE}</style>
    </BoardDrawing>,
  )}\n`;
