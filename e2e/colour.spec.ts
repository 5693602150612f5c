import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import {
  distance,
  drawToSlab,
  holdOver,
  patch,
  penStroke,
  prepare,
  ready,
  sendOut,
  slabPixel,
  straight,
  strokeOnSlab,
  test,
  atRest,
} from './easel';

const redness = async (page: Page, u: number, v: number) => {
  const [r, g] = await slabPixel(page, u, v);
  return r - g;
};
const focus = (page: Page) => page.getByTestId('canvas').focus();

test('paint is mixed on the slab, taken up, laid and sampled back; the slab is kept', async ({ page }) => {
  await prepare(page, 'Slab');
  const stone = await slabPixel(page, 0.3, 0.5);
  await drawToSlab(page, page.getByRole('button', { name: 'Load Titanium White' }), 0.25, 0.5);
  await drawToSlab(page, page.getByRole('button', { name: 'Load Yellow Ochre' }), 0.37, 0.5);
  await expect.poll(async () => distance(await slabPixel(page, 0.25, 0.5), stone)).toBeGreaterThan(60);
  // the knife works one into the other
  await page.getByRole('button', { name: 'Roll', exact: true }).click();
  await page.getByRole('button', { name: /^Take the Knife/ }).click();
  await expect(page.getByLabel('In hand').getByRole('heading', { name: 'Knife' })).toBeVisible();
  for (let k = 0; k < 5; k++) {
    const v = 0.4 + 0.05 * k;
    await strokeOnSlab(page, [
      [0.2, v],
      [0.42, 0.9 - v],
      [0.4, v],
      [0.22, 0.9 - v],
    ]);
  }
  await focus(page);
  await holdOver(page, 's', page.getByTestId('slab'), 0.31, 0.47);
  await expect(page.getByLabel('Slab', { exact: true })).toContainText(/White.*Ochre|Ochre.*White/);
  await page.keyboard.up('s');
  // a clean brush pressed into it, here and there, takes up what lies there
  await page.getByRole('button', { name: 'Take the Round' }).click();
  await expect(page.getByTestId('carried')).toHaveText('clean');
  const slab = (await page.getByTestId('slab').boundingBox())!;
  for (const [u, v] of [
    [0.31, 0.47],
    [0.29, 0.5],
    [0.33, 0.44],
    [0.31, 0.53],
  ]) {
    await page.mouse.click(slab.x + slab.width * u, slab.y + slab.height * v);
    await expect(page.getByTestId('carried')).toContainText(/White.*Ochre|Ochre.*White/);
  }
  const onBrush = await page.getByTestId('carried').textContent();
  const ground = await patch(page, 300, 200, 3);
  await penStroke(page, straight(290, 200, 340, 201, 0.8, 12));
  await expect.poll(async () => distance(await patch(page, 300, 200, 3), ground)).toBeGreaterThan(12);
  // what lies on the canvas is what was on the brush
  await focus(page);
  const canvas = (await page.getByTestId('canvas').boundingBox())!;
  await page.keyboard.down('s');
  await page.mouse.move(canvas.x + 298, canvas.y + 199);
  await page.mouse.move(canvas.x + 300, canvas.y + 200);
  const tag = page.getByRole('status').filter({ hasText: 'from Paint' });
  await expect(tag).toContainText(/White.*Ochre|Ochre.*White/);
  const white = (words: string) =>
    Number(/(\d+) White/.exec(words)?.[1] ?? 1) / Number(/(\d+) Yellow Ochre/.exec(words)?.[1] ?? 1);
  expect(Math.abs(Math.log(white((await tag.textContent())!) / white(onBrush!)))).toBeLessThan(0.5);
  await page.keyboard.up('s');

  // the button squeezes the mixture out too, in a row along the edge
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await page.getByRole('button', { name: 'Squeeze the mixture out' }).click();
  await expect.poll(() => redness(page, 0.0625, 0.14)).toBeGreaterThan(60);
  await page.keyboard.press('Control+z');
  await expect.poll(() => redness(page, 0.0625, 0.14)).toBeLessThan(20);

  // taken back and done again
  const mixed = await slabPixel(page, 0.31, 0.47);
  await page.getByRole('button', { name: 'Scrape the slab clean' }).click();
  await expect.poll(async () => distance(await slabPixel(page, 0.31, 0.47), stone)).toBeLessThan(6);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await slabPixel(page, 0.31, 0.47), mixed)).toBeLessThan(4);

  // closed and opened again: still there; and the file's journal paints the same state
  await atRest(page);
  await page.reload();
  await ready(page);
  await expect.poll(async () => distance(await slabPixel(page, 0.31, 0.47), mixed)).toBeLessThan(4);
  const file = await sendOut(page, /Painting file/);
  const parts = unzipSync(new Uint8Array(file.bytes));
  const manifest = JSON.parse(strFromU8(parts['manifest.json'])) as { digest: string; palette: { tubes: string[] } };
  expect(manifest.palette.tubes).toHaveLength(12);
  const journal = join(mkdtempSync(join(tmpdir(), 'stigmos-')), 'journal.json');
  writeFileSync(journal, parts['journal.json']);
  const replayed = JSON.parse(execFileSync('./stigmos', ['replay', journal]).toString()) as {
    digest: string;
    mass: Record<string, { slab: number }>;
  };
  expect(replayed.digest).toBe(manifest.digest);
  expect(replayed.mass.PY43.slab).toBeGreaterThan(0);
});

test('rows of the mixing table: tubes by parts, squeezed out on the slab, sampled', async ({ page }) => {
  const table = JSON.parse(readFileSync('src/core/colour/data/mixing-table.json', 'utf8')) as {
    rows: { name: string; parts: Record<string, number>; inf?: { lab: number[] } }[];
  };
  const names: Record<string, string> = {
    PW6: 'Titanium White',
    PY3: 'Lemon Yellow (Hansa Light)',
    PY150: 'Nickel Azo Yellow',
    PY43: 'Yellow Ochre',
    PR188: 'Naphthol Scarlet',
    PR122: 'Quinacridone Magenta',
    PB29: 'Ultramarine Blue',
    PB15_3: 'Phthalo Blue (green shade)',
    PG7: 'Phthalo Green (blue shade)',
    PBr7BS: 'Burnt Sienna',
    PBr7BU: 'Burnt Umber',
    PBk9: 'Ivory Black',
  };
  const rows = table.rows.filter((row) => row.inf && Object.keys(row.parts).every((id) => id in names));
  expect(rows.length).toBeGreaterThan(12);
  await prepare(page, 'Table');
  await page.getByRole('button', { name: 'Bring the slab nearer' }).click();
  const numbers = page.getByRole('tooltip', { name: /^Mixture by parts/ });
  // a few of all kinds; the others go the same way in the tests of the slab
  const some = rows.filter((_, i) => i % Math.ceil(rows.length / 6) === 0);
  for (const [i, row] of some.entries()) {
    const ids = Object.keys(row.parts);
    await page.getByRole('button', { name: `Load ${names[ids[0]]}` }).click();
    for (const id of ids.slice(1)) await page.getByRole('button', { name: `Add ${names[id]} to the mixture` }).click();
    // on a busy machine the first click may only end the one before
    await expect(async () => {
      if (!(await numbers.isVisible())) await page.getByRole('button', { name: 'Mixture by parts' }).click();
      await expect(numbers).toBeVisible({ timeout: 2000 });
    }).toPass();
    for (const [k, id] of ids.entries()) {
      const field = numbers.getByRole('spinbutton').nth(k);
      await field.fill(String(row.parts[id]));
      await field.press('Enter');
    }
    await page.getByRole('button', { name: 'Mixture by parts' }).click();
    await expect(numbers).toBeHidden();
    const [u, v] = [0.12 + 0.15 * i, 0.4];
    await drawToSlab(page, page.getByTestId('swatch'), u, v);
    const words = (await page.getByTestId('mixture').textContent())!.split(', ');
    await focus(page);
    await holdOver(page, 's', page.getByTestId('slab'), u, v);
    // equal parts may be told in either order
    for (const part of words) await expect(page.getByLabel('Slab', { exact: true }), row.name).toContainText(part);
    await page.keyboard.up('s');
    // the bead is the colour that the table says, but for the light on it
    const [L, a, b] = row.inf!.lab;
    const [r, g, blue] = await slabPixel(page, u, v);
    const lightness =
      116 * Math.cbrt(0.2126 * (r / 255) ** 2.2 + 0.7152 * (g / 255) ** 2.2 + 0.0722 * (blue / 255) ** 2.2) - 16;
    expect(Math.abs(lightness - L), row.name).toBeLessThan(14);
    if (a < -20) expect(g, row.name).toBeGreaterThan(r);
    if (b > 30) expect(r + g, row.name).toBeGreaterThan(2 * blue);
  }
});

test('the nudge pad adds a tube at hand and says which', async ({ page }) => {
  await prepare(page, 'Nudge');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await expect(page.getByTestId('carried')).toHaveText('Ultramarine');
  const lighter = page.getByRole('button', { name: /^Make it lighter/ });
  await expect(lighter).toHaveAccessibleName(/White/);
  await lighter.click();
  await lighter.click();
  await expect(page.getByTestId('mixture')).toContainText('White');
  await expect(page.getByTestId('carried')).toContainText('White');
  const warmer = page.getByRole('button', { name: /^Make it warmer/ });
  const tube = /(?:of|little|much) (?:as )?(.+)$/.exec((await warmer.getAttribute('aria-label'))!)![1];
  await warmer.click();
  await page.getByRole('button', { name: 'Mixture by parts' }).click();
  await expect(page.getByRole('tooltip', { name: /^Mixture by parts/ })).toContainText(tube);
  // what no tube can do is not offered
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Load Titanium White' }).click();
  await expect(page.getByRole('button', { name: /^Make it lighter/ })).toBeDisabled();
});

test('the leaf: a chip that the tubes reach gives its recipe, the others are empty', async ({ page }) => {
  await prepare(page, 'Leaf');
  await page.getByRole('button', { name: 'Leaf', exact: true }).click();
  const leaf = page.getByRole('region', { name: 'Leaf' });
  await leaf.getByRole('tab', { name: 'Hue 63 degrees' }).click();
  const chip = leaf.getByRole('button', { name: /^Value 6, chroma 36:/ });
  await expect(chip).toBeVisible();
  await expect(leaf.getByLabel('Value 9, chroma 84: beyond these tubes')).toBeVisible();
  // the leaf fills chip by chip: counted once it fills no more
  let reached = -1;
  await expect
    .poll(
      async () => {
        const before = reached;
        reached = await leaf.getByRole('button', { name: /^Value/ }).count();
        return reached - before;
      },
      { intervals: [1500] },
    )
    .toBe(0);
  const recipe = (await chip.getAttribute('aria-label'))!.split(': ')[1];
  await chip.click();
  await expect(page.getByTestId('mixture')).toHaveText(recipe);
  await expect(page.getByTestId('carried')).toHaveText(recipe);
  await page.getByRole('button', { name: 'Close the leaf' }).click();
  // four earths fill less of the same leaf
  await page.getByRole('button', { name: /^Set of tubes/ }).click();
  await page.getByRole('menuitem', { name: 'Earth four' }).click();
  await page.getByRole('button', { name: 'Leaf', exact: true }).click();
  await leaf.getByRole('tab', { name: 'Hue 171 degrees' }).click();
  await expect(leaf.getByLabel(/beyond these tubes/).first()).toBeVisible();
  await leaf.getByRole('tab', { name: 'Hue 63 degrees' }).click();
  await expect(leaf.getByLabel('Value 1, chroma 84: beyond these tubes')).toBeVisible();
  await expect.poll(() => leaf.getByRole('button', { name: /^Value/ }).count()).toBeLessThan(reached);
});

test('a photo gives recipes, spots are compared, and house rules hold', async ({ page }) => {
  await page.goto('/easel?painting=low-tide');
  await ready(page);
  const photo = page.getByTestId('photo');
  await expect(photo).toBeVisible();
  await focus(page);
  // hold the key over the green boat
  await holdOver(page, 's', photo, 0.6, 0.575);
  const tag = page.getByRole('status').filter({ hasText: 'Delta E' });
  await expect(tag).toContainText('met');
  const recipe = (await tag.textContent())!.split(/met,|nearly met/)[0];
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.up('s');
  await expect(page.getByTestId('mixture')).toHaveText(recipe.trim());
  await expect(page.getByTestId('carried')).toHaveText(recipe.trim());

  // two spots, one on the photo and one on the canvas
  const canvas = page.getByTestId('canvas');
  await focus(page);
  await holdOver(page, 'd', photo, 0.25, 0.6);
  await expect(page.getByRole('status').filter({ hasText: 'mark the first spot' })).toBeVisible();
  await page.mouse.down();
  await page.mouse.up();
  await holdOver(page, 'd', canvas, 0.5, 0.35);
  await expect(page.getByRole('status').filter({ hasText: /here: .*lighter/ })).toBeVisible();
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.up('d');
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('pair')).toHaveText(/1b is \d.* value steps lighter.* than 1a/);
  await expect(page.getByText('b − a')).toBeHidden();
  await page.getByRole('checkbox', { name: 'Numbers' }).check();
  await expect(page.getByText('b − a')).toBeVisible();
  // the probe says how the brush differs from what it is over
  await page.getByRole('checkbox', { name: /on the brush/ }).check();
  await canvas.hover({ position: { x: 300, y: 120 } });
  await canvas.hover({ position: { x: 304, y: 122 } });
  await expect(page.getByRole('status').filter({ hasText: 'the brush:' })).toContainText(/darker|lighter|the same/);
  await page.keyboard.press('p');
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();

  // only four tubes from now on: what has others in it cannot be loaded, and that is said
  await page.getByRole('button', { name: 'Tube rack' }).click();
  const rack = page.getByRole('region', { name: 'Tube rack' });
  await rack.getByRole('button', { name: /^Earth four/ }).click();
  await rack.getByRole('checkbox', { name: 'Only these tubes in this painting' }).check();
  await rack.getByRole('button', { name: 'Close the rack' }).click();
  await expect(page.getByLabel('Tubes').getByRole('button', { name: /^Load / })).toHaveCount(4);
  await focus(page);
  await holdOver(page, 's', canvas, 0.5, 0.35);
  await expect(page.getByRole('status').filter({ hasText: 'from' })).toBeVisible();
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.up('s');
  await expect(page.getByRole('alert').filter({ hasText: 'By your house rules' })).toContainText(
    'is not for this painting',
  );
  // a colour of the photo is solved with the four, and what they cannot reach is told
  await holdOver(page, 's', photo, 0.6, 0.575);
  await expect(page.getByRole('status').filter({ hasText: 'Delta E' })).toContainText('do not reach it');
  await page.keyboard.up('s');
  // no sampling at all
  await page.getByRole('button', { name: 'Tube rack' }).click();
  await rack.getByRole('checkbox', { name: 'No sampling from the canvas' }).check();
  await rack.getByRole('checkbox', { name: 'No sampling from photos' }).check();
  await rack.getByRole('button', { name: 'Close the rack' }).click();
  await focus(page);
  await holdOver(page, 's', canvas, 0.5, 0.3);
  await expect(page.getByRole('status').filter({ hasText: 'nothing is sampled from this canvas' })).toBeVisible();
  await holdOver(page, 's', photo, 0.6, 0.575);
  await expect(page.getByRole('status').filter({ hasText: 'nothing is sampled from photos' })).toBeVisible();
  await page.keyboard.up('s');
  // the rules are kept with the painting
  await page.reload();
  await ready(page);
  await expect(page.getByLabel('Tubes').getByRole('button', { name: /^Load / })).toHaveCount(4);
});

test('the mixing desk: colours of a photo, a proposed set, a string set out on the slab', async ({ page }) => {
  await page.goto('/easel?painting=low-tide');
  await ready(page);
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.getByRole('button', { name: 'Desk', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Mixing desk' })).toBeVisible();
  await expect(page.getByTestId('hand')).toHaveText('Ultramarine');
  // a colour asked for by value, chroma and hue
  const asked = page.getByRole('region', { name: 'Recipe for a colour' });
  await asked.getByRole('button', { name: /^Take / }).click();
  await expect(page.getByTestId('hand')).not.toHaveText('Ultramarine');
  // spectra and reach are drawn
  await expect(page.getByRole('region', { name: 'Spectra' }).locator('path.recharts-line-curve').first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'What the set reaches' })).toContainText(/within reach|beyond reach/, {
    timeout: 30_000,
  });
  // relations
  await expect(page.getByRole('region', { name: 'Relations' }).getByRole('button', { name: /^Take / })).toHaveCount(1);

  await page.getByText('From photos', { exact: true }).click();
  const colours = page.getByRole('region', { name: 'Colours that matter' }).getByRole('button', { name: /^Take / });
  expect(await colours.count()).toBeGreaterThan(4);
  await page.getByRole('button', { name: 'Propose' }).click();
  const proposed = page.getByRole('list', { name: 'Proposed tubes' }).getByRole('listitem');
  await expect(proposed.first()).toBeVisible({ timeout: 30_000 });
  expect(await proposed.count()).toBeLessThanOrEqual(4);
  await page.getByRole('button', { name: 'Take these tubes to the bench' }).click();
  await colours.first().click();

  await page.getByText('Mix', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'String' }).getByRole('button', { name: /^Step/ })).toHaveCount(9);
  await page.getByRole('button', { name: 'Set it out on the slab' }).click();
  await ready(page);
  await expect(page.getByRole('button', { name: /^Set of tubes: From the photo/ })).toBeVisible();
  const value = async (u: number) => (await slabPixel(page, u, 0.2)).reduce((p, q) => p + q, 0);
  await expect.poll(async () => (await value(0.92)) - (await value(0.08))).toBeGreaterThan(250);
});

test('own paints: measured, put into the rack, painted with, shared; wrong files end in a sentence', async ({
  page,
}) => {
  await prepare(page, 'Own paint');
  await page.getByRole('button', { name: 'Load Phthalo Blue (green shade)' }).click();
  await page.getByRole('button', { name: 'Desk', exact: true }).click();
  await page.getByText('Own paints', { exact: true }).click();
  const file = page.getByLabel('Open a measurement file');
  const trouble = page.getByRole('region', { name: 'A new paint' }).getByRole('alert');
  const open = (name: string, text: string) =>
    file.setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await open('empty.txt', '');
  await expect(trouble).toContainText('“empty.txt”: This file is empty.');
  await open('photo.cxf', '<html><body>');
  await expect(trouble).toContainText(/“photo.cxf”: This is no CxF file/);
  await open(
    'one.txt',
    'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID nm400 nm700\nEND_DATA_FORMAT\nBEGIN_DATA\nA 0.1 0.2\nEND_DATA\n',
  );
  await expect(trouble).toContainText('“A” alone');
  await page.getByLabel('Name of the paint').fill('Mooring blue');
  await page.getByRole('button', { name: 'Measure the mixture in hand' }).click();
  await expect(page.getByText('2 samples from the device')).toBeVisible();
  await page.getByRole('button', { name: 'Put the paint into the rack' }).click();
  await expect(page.getByRole('button', { name: 'Put back Mooring blue' })).toBeVisible();
  // written as a file and read again
  await page.getByText('CxF3', { exact: true }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save Mooring blue' }).click(),
  ]);
  await open('again.cxf', readFileSync(await download.path(), 'utf8'));
  await expect(page.getByText('2 samples from again.cxf')).toBeVisible();

  await page.getByRole('button', { name: 'Close the mixing desk' }).click();
  await ready(page);
  const ground = await patch(page, 300, 200, 3);
  await page.getByRole('button', { name: 'Load Mooring blue' }).click();
  await expect(page.getByTestId('carried')).toHaveText('Mooring blue');
  await penStroke(page, straight(200, 200, 420, 202, 0.7));
  await expect.poll(async () => distance(await patch(page, 300, 201, 3), ground)).toBeGreaterThan(80);
  await atRest(page);
  await page.reload();
  await ready(page);
  await expect.poll(async () => distance(await patch(page, 300, 201, 3), ground)).toBeGreaterThan(80);
  // the painting carries its paint: its journal is replayed where nobody has heard of it
  const out = await sendOut(page, /Painting file/);
  const parts = unzipSync(new Uint8Array(out.bytes));
  const journal = join(mkdtempSync(join(tmpdir(), 'stigmos-')), 'journal.json');
  writeFileSync(journal, parts['journal.json']);
  const replayed = JSON.parse(execFileSync('./stigmos', ['replay', journal]).toString()) as { digest: string };
  expect(replayed.digest).toBe((JSON.parse(strFromU8(parts['manifest.json'])) as { digest: string }).digest);

  // a tube replaced in the whole painting, and taken back
  const blue = await patch(page, 300, 201, 3);
  await page.getByRole('button', { name: 'Paint list' }).click();
  await page.getByRole('button', { name: 'Replace Mooring blue' }).click();
  await page.getByLabel('Tube to put in its place').click();
  await page.keyboard.type('Naphthol');
  await page.keyboard.press('Enter');
  await expect(page.getByText('with Naphthol Scarlet')).toBeVisible();
  await page.getByRole('button', { name: 'Replace it in the whole painting' }).click();
  await page.getByRole('button', { name: 'Paint list' }).click();
  await expect
    .poll(async () => {
      const [r, , b] = await patch(page, 300, 201, 3);
      return r - b;
    })
    .toBeGreaterThan(60);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await patch(page, 300, 201, 3), blue)).toBeLessThan(6);
});

test('own sets: kept with a note, shared as a file, opened again; tubes change places by dragging', async ({
  page,
}) => {
  await prepare(page, 'Sets');
  await page.getByRole('button', { name: 'Tube rack' }).click();
  const rack = page.getByRole('region', { name: 'Tube rack' });
  await rack.getByLabel('Search the tubes').fill('viridian');
  await rack.getByRole('button', { name: 'Take Viridian' }).click();
  await rack.getByLabel('Search the tubes').fill('');
  await rack.getByRole('button', { name: 'Put back Ivory Black' }).click();
  await rack.getByLabel('Name of the set').fill('Ebb');
  await rack.getByLabel('Plan of the colour').fill('no black: darks from umber and blue');
  await rack.getByRole('button', { name: 'Keep as own set' }).click();
  await expect(rack.getByRole('button', { name: /^Ebb 12/ })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    rack.getByRole('button', { name: 'Share' }).click(),
  ]);
  const bytes = readFileSync(await download.path());
  await rack.getByRole('button', { name: 'Remove the set Ebb' }).click();
  await expect(rack.getByRole('button', { name: /^Ebb/ })).toBeHidden();
  await rack
    .getByLabel('Open a set of tubes')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from('{}') });
  await expect(rack.getByRole('alert')).toHaveText('This is no set of tubes.');
  await rack
    .getByLabel('Open a set of tubes')
    .setInputFiles({ name: 'ebb.json', mimeType: 'application/json', buffer: bytes });
  await expect(rack.getByRole('button', { name: /^Ebb 12/ })).toBeVisible();
  await expect(rack.getByLabel('Plan of the colour')).toHaveValue('no black: darks from umber and blue');
  await rack.getByRole('button', { name: 'Close the rack' }).click();
  // drag the first tube behind the third
  const tubes = page.getByLabel('Tubes').getByRole('button', { name: /^Load / });
  const [first, third] = [await tubes.nth(0).boundingBox(), await tubes.nth(2).boundingBox()];
  await expect(tubes.nth(0)).toHaveAccessibleName('Load Titanium White');
  await page.mouse.move(first!.x + 20, first!.y + 20);
  await page.mouse.down();
  await page.mouse.move(third!.x + 10, third!.y + 20, { steps: 6 });
  await page.mouse.move(third!.x + 20, third!.y + 20, { steps: 3 });
  await page.mouse.up();
  await expect(tubes.nth(2)).toHaveAccessibleName('Load Titanium White');
  await page.reload();
  await ready(page);
  await expect(tubes.nth(2)).toHaveAccessibleName('Load Titanium White');
});
