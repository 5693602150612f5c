import { masstoneLab } from '@/core/colour/mixture';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import type { Caption } from '@/core/journal/playing/captions';
import type { Player } from '@/core/journal/playing/player';
import type { Told } from '@/core/journal/playing/stages';
import { fitted, type MovingPicture } from '@/core/picture/movingPicture';
import type { View } from '@/core/picture/view';
import { TOOLS } from '@/core/tools/tools';
import type { FilmSettings } from './filmSettings';
import { laidIn, tipAt } from './tip';

/** Colours of the room, which a film is seen in too. */
const ROOM = '#9a9a98';
const ROOM_CODES = [0x9a, 0x9a, 0x98, 255];
const PAPER = '#d9d7d2';
const INK = '#22211f';
const INK_SOFT = '#57544e';
export const SERIF = '"Source Serif 4 Variable", Georgia, serif';
export const SANS = '"Source Sans 3 Variable", "Helvetica", sans-serif';

/** Shares of the shorter side: around the picture, and the strip with words under it. */
const MARGIN = 0.035;
const STRIP = 0.125;

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Where in a film of so many pixels the picture is, and where the words are. */
export function filmLayout(width: number, height: number, captions: boolean): { picture: Box; strip: Box } {
  const short = Math.min(width, height);
  const margin = Math.round(short * MARGIN);
  const strip = captions ? Math.round(short * STRIP) : 0;
  return {
    picture: { left: margin, top: margin, width: width - 2 * margin, height: height - strip - 2 * margin },
    strip: { left: 0, top: height - strip, width, height: strip },
  };
}

/** The part of a view that a whole picture takes up, whole pixels. */
export function taken(view: View, of: { readonly width: number; readonly height: number }) {
  const [width, height] = [of.width * view.zoom, of.height * view.zoom];
  return {
    left: Math.floor((view.width - width) / 2),
    top: Math.floor((view.height - height) / 2),
    right: Math.ceil((view.width + width) / 2),
    bottom: Math.ceil((view.height + height) / 2),
  };
}

type Canvas2d = OffscreenCanvasRenderingContext2D;

/** Draws a moment: the picture in the room, the tool on it, and what is said under it. */
export function drawFrame(
  canvas: Canvas2d,
  { player, picture, told }: { readonly player: Player; readonly picture: MovingPicture; readonly told: Told },
  { captions, footprint }: Pick<FilmSettings, 'captions' | 'footprint'>,
  caption: Caption | undefined,
): void {
  const { width, height } = canvas.canvas;
  const { picture: box, strip } = filmLayout(width, height, captions);
  canvas.fillStyle = ROOM;
  canvas.fillRect(0, 0, width, height);
  const view = fitted(box.width, box.height, picture.size);
  const part = taken(view, picture.size);
  const [across, down] = [part.right - part.left, part.bottom - part.top];
  const rgba = picture.draw(view, part);
  fillClear(rgba);
  canvas.putImageData(new ImageData(rgba, across, down), box.left + part.left, box.top + part.top);
  if (footprint) drawFootprint(canvas, player, told, view, box);
  if (captions && caption) drawCaption(canvas, strip, caption);
}

/** What is clear beside a picture that does not fill its last pixel is of the room. */
function fillClear(rgba: Uint8ClampedArray): void {
  for (let i = 0; i < rgba.length; i += 4) if (rgba[i + 3] === 0) rgba.set(ROOM_CODES, i);
}

function drawFootprint(canvas: Canvas2d, player: Player, told: Told, view: View, box: Box): void {
  const tip = tipAt(player);
  const hand = told.inHandAt(player.place.done);
  if (!tip || !hand) return;
  const { setting } = hand.stroke;
  const { widthMm, lengthMm, corners } = TOOLS.of(setting.tool).outline(setting);
  const { left, top, perMm } = laidIn(view, player);
  canvas.save();
  canvas.beginPath();
  canvas.rect(box.left, box.top, box.width, box.height);
  canvas.clip();
  canvas.translate(box.left + left + tip.x * perMm, box.top + top + tip.y * perMm);
  canvas.rotate(tip.angle + Math.PI / 2);
  const [across, along] = [Math.max(2, widthMm * perMm) / 2, Math.max(2, lengthMm * perMm) / 2];
  canvas.beginPath();
  if (corners === 'square') canvas.rect(-across, -along, 2 * across, 2 * along);
  else canvas.ellipse(0, 0, across, along, 0, 0, 2 * Math.PI);
  for (const [line, ink] of [
    [3, 'rgb(255 255 255 / 55%)'],
    [1.2, INK],
  ] as const) {
    canvas.lineWidth = line;
    canvas.strokeStyle = ink;
    canvas.stroke();
  }
  canvas.restore();
}

function drawCaption(canvas: Canvas2d, { left, top, width, height }: Box, caption: Caption): void {
  const edge = height * 0.28;
  canvas.fillStyle = PAPER;
  canvas.fillRect(left, top, width, height);
  canvas.textBaseline = 'alphabetic';
  const [first, second] = [top + height * 0.44, top + height * 0.78];
  const half = width * 0.5 - edge * 1.5;
  canvas.textAlign = 'left';
  words(canvas, caption.stage, left + edge, first, half, `600 ${height * 0.27}px ${SERIF}`, INK);
  const count = `Stage ${caption.number} of ${caption.stages}, stroke ${caption.stroke} of ${caption.strokes}`;
  words(canvas, count, left + edge, second, half, `${height * 0.2}px ${SANS}`, INK_SOFT);
  const middle = left + width * 0.5;
  const radius = height * 0.16;
  const tool = caption.pause || caption.tool;
  canvas.beginPath();
  canvas.arc(middle + radius, top + height / 2, radius, 0, 2 * Math.PI);
  if (caption.mixture) {
    canvas.fillStyle = linearToHex(labToLinear(masstoneLab(caption.mixture)));
    canvas.fill();
  }
  canvas.lineWidth = 1;
  canvas.strokeStyle = INK_SOFT;
  canvas.stroke();
  const from = middle + radius * 3;
  words(canvas, tool, from, first, half - radius * 2, `600 ${height * 0.25}px ${SANS}`, INK);
  words(canvas, caption.paint, from, second, half - radius * 2, `${height * 0.22}px ${SANS}`, INK_SOFT);
}

/** Writes a line; what is too long for its place ends in dots. */
function words(canvas: Canvas2d, text: string, x: number, y: number, most: number, font: string, ink: string): void {
  canvas.font = font;
  canvas.fillStyle = ink;
  let shown = text;
  while (shown.length > 1 && canvas.measureText(shown).width > most) shown = `${shown.slice(0, -2).trimEnd()}…`;
  canvas.fillText(shown, x, y);
}

/** Draws the card that a film begins with. */
export function drawTitle(canvas: Canvas2d, title: string, below: string): void {
  const { width, height } = canvas.canvas;
  const short = Math.min(width, height);
  canvas.fillStyle = PAPER;
  canvas.fillRect(0, 0, width, height);
  canvas.textAlign = 'center';
  canvas.textBaseline = 'alphabetic';
  words(canvas, title, width / 2, height / 2, width * 0.86, `600 ${short * 0.085}px ${SERIF}`, INK);
  words(canvas, below, width / 2, height / 2 + short * 0.075, width * 0.86, `${short * 0.035}px ${SANS}`, INK_SOFT);
}
