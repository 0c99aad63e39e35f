import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import bwipjs from 'bwip-js/node';
import Papa from 'papaparse';
import pdfmake, { type Content } from 'pdfmake';
import {
  placeText,
  scheduleOf,
  stateWordText,
  supplyMark,
  supplyMarkLines,
  supplyMarkText,
  tagsOf,
  unanswered,
  openPointText,
  type CableTag,
  type Job,
  type JobView,
  type ScheduleLine,
  type Shop,
  type SupplyMark,
  plugName,
  wattsText,
} from '@fairwatt/core';
import type { LabelStock } from '@fairwatt/contract';

const roboto = join(dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')), 'fonts/Roboto');
pdfmake.addFonts({
  Roboto: {
    normal: join(roboto, 'Roboto-Regular.ttf'),
    bold: join(roboto, 'Roboto-Medium.ttf'),
    italics: join(roboto, 'Roboto-Italic.ttf'),
    bolditalics: join(roboto, 'Roboto-MediumItalic.ttf'),
  },
});
// Documents are made from a job's own words: nothing outside may be fetched for them, nothing read but the face.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(roboto));

const pointsPerMillimetre = 72 / 25.4;
const points = (millimetres: number) => millimetres * pointsPerMillimetre;

/** Label stock by its sheet: millimetres of the label, of the margins and of the step from one to the next. */
const stocks: Record<
  LabelStock,
  {
    readonly page: readonly [number, number];
    readonly label: readonly [number, number];
    readonly margin: readonly [number, number];
    readonly columns: number;
    readonly rows: number;
  }
> = {
  'a4-24': { page: [210, 297], label: [70, 37], margin: [0, 0.5], columns: 3, rows: 8 },
  'a4-65': { page: [210, 297], label: [38.1, 21.2], margin: [9.75, 10.7], columns: 5, rows: 13 },
  roll: { page: [57, 32], label: [57, 32], margin: [0, 0], columns: 1, rows: 1 },
};

/** Where a tag's QR leads: the record of this cable. */
export const tagAddress = (address: string, jobCode: string, cable: string): string =>
  `${address}/tags/${encodeURIComponent(jobCode)}/${encodeURIComponent(cable)}`;

/** A QR as SVG that is read with up to 15 % of it lost; the package's types do not know this option of the code. */
const qrOf = (text: string): string =>
  bwipjs.toSVG({ bcid: 'qrcode', text, eclevel: 'M' } as Parameters<typeof bwipjs.toSVG>[0]);

/** On a small tag the rest of a long list is told by three dots; the code opens it all. */
const shortened = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

const throughText = (through: string | null) => (through === null ? '' : ` through ${through}`);

function tagContent(tag: CableTag, job: Job, address: string, width: number, height: number): Content {
  const small = height < 25;
  const qr = points(Math.min(height - 5, width * 0.4));
  return {
    columns: [
      { svg: qrOf(tagAddress(address, job.code, tag.cable)), width: qr, height: qr },
      {
        width: '*',
        margin: [points(1.5), 0, 0, 0],
        stack: [
          {
            text: [
              { text: tag.cable, bold: true, fontSize: small ? 11 : 17 },
              { text: `  ${job.code}`, fontSize: small ? 6 : 9 },
            ],
          },
          {
            text: `${tag.end === 'supply' ? 'Supply end' : 'Device end'}: ${tag.here}${throughText(tag.through)}`,
            bold: true,
            fontSize: small ? 5.5 : 8.5,
          },
          { text: `goes to ${shortened(tag.there, small ? 34 : 60)}`, fontSize: small ? 5 : 7.5 },
        ],
      },
    ],
    margin: [points(2), points(2), points(1), 0],
  };
}

/**
 * Labels as PDF, on a sheet of this stock or one to a page for a roll.
 * @param skip labels of the first sheet that are used up already
 */
function labelSheet(
  labels: readonly ((width: number, height: number) => Content)[],
  title: string,
  stock: LabelStock,
  skip: number,
): Promise<Buffer> {
  const {
    page,
    label: [width, height],
    margin,
    columns,
    rows,
  } = stocks[stock];
  const perPage = columns * rows;
  const cells = [...Array.from({ length: skip % perPage }, () => null), ...labels];
  const pages = Array.from({ length: Math.max(1, Math.ceil(cells.length / perPage)) }, (_, index) =>
    cells.slice(index * perPage, (index + 1) * perPage),
  );
  const content = pages.map((onPage, index): Content => ({
    ...(index === 0 ? {} : { pageBreak: 'before' as const }),
    table: {
      widths: Array.from({ length: columns }, () => points(width)),
      heights: Array.from({ length: Math.ceil(onPage.length / columns) || 1 }, () => points(height) - 0.01),
      body: Array.from({ length: Math.ceil(onPage.length / columns) || 1 }, (_, row) =>
        Array.from({ length: columns }, (_unused, column): Content => {
          const label = onPage[row * columns + column];
          return label == null ? { text: '' } : label(width, height);
        }),
      ),
      dontBreakRows: true,
    },
    layout: {
      hLineWidth: () => 0,
      vLineWidth: () => 0,
      paddingLeft: () => 0,
      paddingRight: () => 0,
      paddingTop: () => 0,
      paddingBottom: () => 0,
    },
  }));
  return render({
    pageSize: { width: points(page[0]), height: points(page[1]) },
    pageMargins: [points(margin[0]), points(margin[1]), 0, 0],
    content,
    info: { title },
    defaultStyle: { font: 'Roboto', fontSize: 8 },
  });
}

/** Tags for both ends of each cable. */
export function labelsPdf(job: Job, view: JobView, address: string, stock: LabelStock, skip: number): Promise<Buffer> {
  const tags = tagsOf(view.cabling).map(
    (tag) => (width: number, height: number) => tagContent(tag, job, address, width, height),
  );
  return labelSheet(tags, `Cable tags ${job.code}`, stock, skip);
}

/** What stands on the supply that came, so that it never lies on a shelf unmarked. */
function markContent(mark: SupplyMark, job: Job, address: string, width: number, height: number): Content {
  const small = height < 25;
  const qr = points(Math.min(height - 5, width * 0.34));
  const rating = mark.ratingWatts === null ? '' : wattsText(mark.ratingWatts);
  const lines = supplyMarkLines(mark).map((text) => shortened(text, small ? 40 : 90));
  return {
    columns: [
      { svg: qrOf(`${address}/jobs/${encodeURIComponent(job.code)}`), width: qr, height: qr },
      {
        width: '*',
        margin: [points(1.5), 0, 0, 0],
        stack: [
          { text: supplyMarkText[mark.word].toUpperCase(), bold: true, fontSize: small ? 9 : 14 },
          {
            text: shortened([mark.name, rating].filter((text) => text !== '').join(', '), small ? 28 : 44),
            bold: true,
            fontSize: small ? 5.5 : 8.5,
          },
          ...(small ? lines.slice(0, 1) : lines).map((text) => ({ text, fontSize: small ? 5 : 7 })),
          { text: `${job.code}, ${job.updatedAt.slice(0, 10)}`, fontSize: small ? 5 : 7 },
        ],
      },
    ],
    margin: [points(2), points(2), points(1), 0],
  };
}

/** The label of the supply that came, once. */
export function supplyLabelPdf(
  job: Job,
  view: JobView,
  address: string,
  stock: LabelStock,
  skip: number,
): Promise<Buffer> {
  const mark = supplyMark(job, view.bareVerdict);
  const label = (width: number, height: number) => markContent(mark, job, address, width, height);
  return labelSheet([label], `Supply of ${job.code}`, stock, skip);
}

const render = async (definition: Parameters<typeof pdfmake.createPdf>[0]): Promise<Buffer> =>
  pdfmake.createPdf(definition).getBuffer();

const signedText = (signed: ScheduleLine['seated'], personName: (id: string) => string) =>
  signed === null ? '' : `${personName(signed.by)}, ${signed.at.slice(0, 16).replace('T', ' ')}`;

/** Each inlet with its cable, as a table. */
function scheduleTable(lines: readonly ScheduleLine[], personName: (id: string) => string) {
  const head = ['Cable', 'Socket', 'Plug', 'Inlet', 'Place', 'Way', 'State', 'Seated by'].map((text) => ({
    text,
    bold: true,
  }));
  return {
    table: {
      headerRows: 1,
      widths: ['auto', 'auto', 'auto', '*', 'auto', '*', 'auto', 'auto'],
      body: [
        head,
        ...lines.map((line) => [
          line.cable ?? '-',
          line.socketLabel ?? (line.cable === null ? '-' : 'fixed'),
          line.plugKind === null ? '-' : `${plugName[line.plugKind]}${throughText(line.through)}`,
          line.inletLabel === line.partName ? line.inletLabel : `${line.inletLabel} (${line.partName})`,
          placeText[line.place],
          line.way,
          stateWordText[line.state],
          signedText(line.seated, personName),
        ]),
      ],
    },
    layout: 'lightHorizontalLines',
  };
}

/** The cable schedule for paper, black and white: each inlet with its cable, what is still open first. */
export function schedulePdf(
  job: Job,
  view: JobView,
  shop: Shop,
  address: string,
  personName: (id: string) => string,
): Promise<Buffer> {
  const lines = scheduleOf(job, view.cabling, shop.bags.cables);
  const open = unanswered(view.openPoints);
  return render({
    pageSize: 'A4',
    pageOrientation: 'landscape',
    pageMargins: [points(14), points(14), points(14), points(16)],
    info: { title: `Cables of ${job.code}` },
    defaultStyle: { font: 'Roboto', fontSize: 9 },
    footer: (page: number, of: number) => ({
      text: `${job.code}  ${job.sheet.title}   page ${page} of ${of}`,
      margin: [points(14), 6, 0, 0],
      fontSize: 8,
    }),
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: `${job.code}  ${job.sheet.title}`, fontSize: 16, bold: true },
              {
                text:
                  view.cabling.basis === 'plan'
                    ? `Cables of ${view.chosen?.name ?? ''}`
                    : `Cables of ${job.supply?.name ?? 'the present supply'}, kept`,
                fontSize: 11,
              },
            ],
          },
          { svg: qrOf(`${address}/jobs/${job.code}/cables`), width: 52 },
        ],
      },
      {
        text: open.length === 0 ? 'Nothing is open.' : `Still open: ${open.map(openPointText).join(' ')}`,
        margin: [0, 8, 0, 8],
        bold: open.length > 0,
      },
      scheduleTable(lines, personName),
      ...(view.cabling.plan === null || view.cabling.plan.bagged.length === 0
        ? []
        : [
            {
              text:
                `In the bag, labelled ${view.chosen?.name ?? ''}: ` +
                view.cabling.plan.bagged.map((piece) => `${piece.count} x ${piece.kitCableId}`).join(', '),
              margin: [0, 8, 0, 0] as [number, number, number, number],
            },
          ]),
    ],
  });
}

/** Columns of the cable schedule as CSV, in order. */
export const scheduleColumns = [
  'cable',
  'source',
  'socket',
  'plug',
  'inlet',
  'part',
  'place',
  'way',
  'state',
  'seated_by',
  'seated_at',
  'rechecked_at',
  'slack_mm',
  'drop_mv',
  'through',
] as const;

export function scheduleCsv(job: Job, view: JobView, shop: Shop): string {
  const rows = scheduleOf(job, view.cabling, shop.bags.cables).map(
    (line): Record<(typeof scheduleColumns)[number], string> => ({
      cable: line.cable ?? '',
      source: line.source,
      socket: line.socketLabel ?? '',
      plug: line.plugKind ?? '',
      inlet: line.inletLabel,
      part: line.partName,
      place: line.place,
      way: line.way,
      state: line.state,
      seated_by: line.seated?.by ?? '',
      seated_at: line.seated?.at ?? '',
      rechecked_at: line.rechecked?.at ?? '',
      slack_mm: line.slackMillimetres === null ? '' : String(Math.round(line.slackMillimetres)),
      drop_mv: line.dropVolts === null ? '' : (line.dropVolts * 1000).toFixed(1),
      through: line.through ?? '',
    }),
  );
  return Papa.unparse(rows, { columns: [...scheduleColumns], newline: '\n', escapeFormulae: true });
}
