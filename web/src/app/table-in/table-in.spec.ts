import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { zipSync, strToU8 } from 'fflate';
import { standingReadings } from '@isometra/work';
import { Rounds } from '../data/rounds';
import { Undo } from '../data/undo';
import { barRound, openShop, refusal, show, until, type Shown } from '../testing/fake-shop';
import { readCells } from './read-file';
import { ReadingsPage } from './readings-page';
import { ThingsPage } from './things-page';

const paste = async (shown: Shown<unknown>, text: string): Promise<void> => {
  const clipboardData = new DataTransfer();
  clipboardData.setData('text', text);
  shown.element.querySelector('textarea')?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, cancelable: true, bubbles: true }));
  await shown.fixture.whenStable();
};

describe('kit from a table', () => {
  const open = async (prepare?: Parameters<typeof openShop>[1]) => {
    const shop = await openShop([], prepare);
    const shown = await show(ThingsPage, { of: 'kit' });
    await until(() => shown.element.querySelector('textarea') !== null);
    return { ...shop, shown };
  };
  const TEXT = 'Name\tCertificate\tDue on\nLever dial\tC-7\t2028-01-31\nOld level\tC-8\t2027-02-30\nSquare\tC-9\t2028-01-31\n';

  it('says what each row becomes before anything is written, then writes what can be, as one thing to take back', async () => {
    const { shown, server } = await open();
    await paste(shown, TEXT);
    expect(shown.text()).toContain('1 to write');
    expect(shown.text()).toContain('2 cannot be taken');
    expect(shown.text()).toContain('there is no day 30 in month 2 of 2027');
    expect(shown.text()).toContain('Certificate: not given → C-7');
    expect(server.kit[0].care).toEqual({});

    // What no column tells is said for every row.
    await shown.pick('Kind of kit of every row', 'square');
    expect(shown.text()).toContain('is an instrument here, and a square in the table');
    await shown.pick('Kind of kit of every row', 'not the same');
    await shown.press('Write 1 piece of kit');
    await until(() => server.kit[0].care.certificate === 'C-7');
    await until(() => shown.text().includes('1 piece of kit written. 2 rows were left out'));
    expect(TestBed.inject(Undo).last()?.done).toBe('1 piece of kit from a table');
    TestBed.inject(Undo).takeBack();
    await until(() => server.kit[0].care.certificate === undefined);
  });

  it('stops at a row that the shop refuses, and says which', async () => {
    const { shown, server } = await open();
    await paste(shown, TEXT);
    server.refuse = refusal(409, 'was changed meanwhile');
    await shown.press('Write 1 piece of kit');
    await until(() => shown.text().includes('Row 2 was not written'));
    expect(shown.text()).toContain('Was changed meanwhile. 0 pieces of kit before it stand.');
  });

  it('reads a table with the same columns as it was read last time', async () => {
    const { shown } = await open();
    await paste(shown, TEXT.replace('Due on', 'Until'));
    await shown.press(/more that a column may tell/);
    await shown.pick('Column of Due again on', /^Until/);
    expect(shown.text()).toContain('Due again on: not given → 31 Jan 2028');
    await shown.press('Write 1 piece of kit');
    await until(() => shown.text().includes('written.'));
    await paste(shown, TEXT.replace('Due on', 'Until').replace('2028-01-31', '2029-01-31'));
    expect(shown.text()).toContain('as they were last time');
    expect(shown.text()).toContain('Due again on: 31 Jan 2028 → 31 Jan 2029');
  });
});

describe('readings from a table', () => {
  it('go into their round; the first row says where it belongs, and read once more nothing is doubled', async () => {
    const round = { ...barRound(10, 9), readings: [] };
    await openShop([round]);
    const shown = await show(ReadingsPage, { roundId: round.id });
    await until(() => shown.element.querySelector('textarea') !== null);
    const rounds = TestBed.inject(Rounds);
    const standing = async () => standingReadings((await firstValueFrom(rounds.one(round.id))).readings);
    await paste(shown, 'value\n0\nx\n');
    expect(shown.text()).toContain('say what the column is in');
    await shown.pick('Unit of Reading', 'div');
    expect(shown.text()).toContain('1 to write');
    expect(shown.text()).toContain('The first row is');
    await shown.press('Write 1 reading');
    await until(async () => (await standing()).length === 1);
    expect((await standing())[0].value).toBe('0 div');
    await paste(shown, 'value\n0\n-9\n');
    await shown.pick('The first row is', /^1\./);
    expect(shown.text()).toContain('1 here already');
  });
});

describe('a file of a spreadsheet', () => {
  const file = (part: BlobPart, name: string) => new File([part], name);

  it('is read as text with what parts its cells, in the letters it was written in', async () => {
    expect(await readCells(file('a;b\n1,5;µ', 'x.csv'))).toEqual({
      cells: [
        ['a', 'b'],
        ['1,5', 'µ'],
      ],
    });
    expect(await readCells(file(new Uint8Array([0x61, 0x3b, 0xb5]), 'x.csv'))).toEqual({ cells: [['a', 'µ']] });
  });

  it('is read from a workbook: figures as they were typed', async () => {
    const sheet = `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>at</t></is></c><c r="B1" t="inlineStr"><is><t>dial</t></is></c></row><row r="2"><c r="A2"><v>20</v></c><c r="B2"><v>-0.30000000000000004</v></c></row></sheetData></worksheet>`;
    const parts = {
      '[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>`,
      'xl/workbook.xml': `<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="Readings" sheetId="1" r:id="rId1"/></sheets></workbook>`,
      'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
      'xl/worksheets/sheet1.xml': sheet,
    };
    const zip = zipSync(Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)])));
    expect(await readCells(file(zip as BlobPart, 'x.xlsx'))).toEqual({
      cells: [
        ['at', 'dial'],
        ['20', '-0.3'],
      ],
    });
  });

  const ods = (rows: string, name = 'x.ods', content = 'content.xml') => {
    const office = 'urn:oasis:names:tc:opendocument:xmlns';
    const xml = `<?xml version="1.0"?><o:document-content xmlns:o="${office}:office:1.0" xmlns:table="${office}:table:1.0" xmlns:text="${office}:text:1.0"><o:body><o:spreadsheet><table:table table:name="First">${rows}</table:table><table:table table:name="Second"><table:table-row><table:table-cell o:value-type="float" o:value="9"/></table:table-row></table:table></o:spreadsheet></o:body></o:document-content>`;
    const kind = strToU8('application/vnd.oasis.opendocument.spreadsheet');
    return file(zipSync({ mimetype: [kind, { level: 0 }], [content]: strToU8(xml) }) as BlobPart, name);
  };
  const cell = (inside: string, about = 'o:value-type="string"') => `<table:table-cell ${about}>${inside}</table:table-cell>`;
  const words = (text: string) => cell(`<text:p>${text}</text:p>`);

  it('is read from an OpenDocument sheet: figures as they are kept, days, what is repeated, and no emptiness below', async () => {
    const rows = [
      `<table:table-header-rows><table:table-row>${words('at')}${words('dial')}${words('due')}</table:table-row></table:table-header-rows>`,
      `<table:table-row table:number-rows-repeated="2">${cell('<text:p>20,00</text:p>', 'o:value-type="float" o:value="20"')}${cell('', 'o:value-type="float" o:value="-0.30000000000000004"')}${cell('', 'o:value-type="date" o:date-value="2027-03-31T00:00:00"')}<table:table-cell table:number-columns-repeated="16381"/></table:table-row>`,
      `<table:table-row table:number-rows-repeated="3"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>`,
      `<table:table-row>${words('two<text:s text:c="2"/>blanks <text:span>and</text:span> more')}<table:covered-table-cell/>${words('µm')}</table:table-row>`,
      `<table:table-row table:number-rows-repeated="1048570"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>`,
    ];
    expect(await readCells(ods(rows.join('')))).toEqual({
      cells: [
        ['at', 'dial', 'due'],
        ['20', '-0.3', '2027-03-31'],
        ['20', '-0.3', '2027-03-31'],
        ...[[], [], []],
        ['two  blanks and more', '', 'µm'],
      ],
    });
  });

  it('of an OpenDocument sheet without a sheet, or torn, is refused', async () => {
    for (const one of [ods('', 'torn.ods', 'other.xml'), ods('<table:table-row>', 'open.ods')])
      expect(await readCells(one)).toEqual({ fault: `${one.name} could not be read as a workbook. Save it as .xlsx or .csv.` });
  });

  it('that is none is refused with what would do', async () => {
    const faults = await Promise.all([
      readCells(file(new Uint8Array([0xd0, 0xcf, 0x11, 0xe0]), 'old.xls')),
      readCells(file(new Uint8Array([0x50, 0x4b, 3, 4, 0]), 'torn.xlsx')),
      readCells(file(new Uint8Array([1, 0, 2]), 'picture.csv')),
    ]);
    expect(await readCells(file('a,b\n"x,2\ny,3', 'x.csv'))).toEqual({
      fault: jasmine.stringContaining('in row 2 of x.csv is never closed'),
    } as never);
    for (const told of faults) expect('fault' in told && told.fault).toMatch(/Save it as \.(csv|xlsx)/);
  });
});
