import { CHECKS } from '../checks/registry.js';
import { placesLine, readPlaces } from './placeTexts.js';

describe('places typed in one line', () => {
  const read = (text: string) => readPlaces(text)?.places;

  it('stand with a space, a comma or a semicolon between them, the unit once or each time', () => {
    expect(read('20 180 380')).toEqual(['20', '180', '380']);
    expect(read('2, 16 in')).toEqual(['2 in', '16 in']);
    expect(read('2 in, 16 in')).toEqual(['2 in', '16 in']);
    expect(read('20,180,380 mm')).toEqual(['20 mm', '180 mm', '380 mm']);
    expect(read('20; 180,5; 380')).toEqual(['20', '180.5', '380']);
    expect(read('3/4 5 1/2 in')).toEqual(['3/4 in', '5 1/2 in']);
    expect(read('20 mm 16 in')).toEqual(['20 mm', '16 in']);
    expect(read('-30 0 30')).toEqual(['-30', '0', '30']);
  });

  it('may be told by the first, the last and how many', () => {
    expect(read('20 to 380, 4')).toEqual(['20', '140', '260', '380']);
    expect(read('20 to 380 mm, 4 places')).toEqual(['20 mm', '140 mm', '260 mm', '380 mm']);
    expect(read('1 … 16 in; 3')).toEqual(['1 in', '8.5 in', '16 in']);
    expect(read('20 to 380, 1')).toBeUndefined();
  });

  it('are not guessed: what may be read two ways, or is no list, is refused', () => {
    for (const text of ['20,180', '1,500 2,000', '20 banana', 'x', '', '20 180 lbf', '20--30', ','])
      expect(read(text)).withContext(text).toBeUndefined();
  });

  it('are written as one line with their unit', () => {
    const line = (text: string, unit = 'mm') => placesLine(readPlaces(text) ?? { places: [], withUnit: true }, unit);
    expect(line('20 180 380')).toBe('20, 180, 380 mm');
    expect(line('2 16', 'in')).toBe('2, 16 in');
    expect(line('20 mm 16 in')).toBe('20 mm, 16 in');
    expect(line('20 to 380, 3')).toBe('20, 200, 380 mm');
  });

  it('are taken by the plan of a check, in mm, and refused by name where they are no list', () => {
    const plan = CHECKS.get('tailstock-traverse')?.plan;
    expect(plan?.safeParse({ places: '2, 16 in' }).data).toEqual(jasmine.objectContaining({ places: [50.8, 406.4] }));
    const issues = (places: string) => plan?.safeParse({ places }).error?.issues.map(({ path, message }) => `${path.join('.')} ${message}`);
    expect(issues('20,180')).toEqual([jasmine.stringMatching(/^places must be a list of places/)] as unknown as string[]);
    expect(issues('20')).toEqual(['places must name 2 at least']);
    expect(issues('20 20')).toEqual(['places names a place twice']);
  });
});
