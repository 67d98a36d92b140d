import fc from 'fast-check';
import { fingerprintText } from './fingerprintText.js';
import { Mentions } from './mentions.js';
import { remarksOf } from './remarksOf.js';
import { surveyPaths } from './surveyPaths.js';

describe('what an archive holds', () => {
  it('has one fingerprint, however its files are ordered', () => {
    const file = fc.record({ path: fc.string(), sha256: fc.stringMatching(/^[0-9a-f]{64}$/) });
    fc.assert(
      fc.property(fc.array(file), (files) => {
        expect(fingerprintText([...files].reverse())).toBe(fingerprintText(files));
      }),
    );
    expect(fingerprintText([{ path: 'a', sha256: '1' }])).not.toBe(fingerprintText([{ path: 'a', sha256: '2' }]));
  });

  it('brings along what is mentioned, and what that mentions, each once', () => {
    const mentions = new Mentions(
      new Map([
        ['dial', ['kit/dial.json']],
        ['holder', ['kit/holder.json']],
        ['6" “short” bar', ['kit/bar.json', 'kit/other.json']],
        ['AB', ['people/AB.json']],
      ]),
    );
    mentions.read('{"instrument":{"kit":"dial"},"by":"AB"}');
    expect(mentions.next()).toEqual(['kit/dial.json', 'people/AB.json']);
    mentions.read('{"id":"dial","on":"holder"}');
    expect(mentions.next()).toEqual(['kit/holder.json']);
    expect(mentions.next()).toEqual([]);
    // By its name, however that is written in JSON, and both of two that have one name.
    mentions.read(JSON.stringify({ instrumentName: '6" “short” bar' }));
    expect(mentions.next()).toEqual(['kit/bar.json', 'kit/other.json']);
  });

  it('brings along notes of its rounds with what they superseded and what superseded them', () => {
    const remark = (id: string, path: string, supersedes: string | null = null) => ({ id, path, supersedes });
    const all = [
      remark('a', '/machines/m/bench/bed-twist/r1'),
      remark('b', '/logbook', 'a'),
      remark('c', '/kit'),
      remark('d', '/machines/m/rounds?x=r1'),
    ];
    expect(remarksOf(all, new Set(['r1'])).map(({ id }) => id)).toEqual(['a', 'b', 'd']);
  });

  it('of one survey is found within a larger one', () => {
    const file = (path: string, content: object) => ({ path, text: JSON.stringify(content) });
    const files = [
      file('machines/m.json', { id: 'm', by: 'AB' }),
      file('machines/n.json', { id: 'n' }),
      file('surveys/s.json', { id: 's', machineId: 'm', limitVersionId: 'v2' }),
      file('surveys/t.json', { id: 't', machineId: 'm' }),
      file('rounds/r.json', { id: 'r', surveyId: 's', machineId: 'm', instrument: 'dial' }),
      file('rounds/q.json', { id: 'q', surveyId: 't', machineId: 'm', instrument: 'other' }),
      file('moves/v.json', { id: 'v', roundId: 'r' }),
      file('kit/dial.json', { id: 'dial' }),
      file('kit/other.json', { id: 'other' }),
      file('limits/l.json', { id: 'l', versions: [{ id: 'v1' }, { id: 'v2' }] }),
      file('people/AB.json', { initials: 'AB' }),
      file('people/CD.json', { initials: 'CD' }),
      file('log/s-0001.json', { surveyId: 's', entries: [] }),
      file('log/m-0001.json', { surveyId: null, entries: [] }),
    ];
    expect(surveyPaths(files, 's')?.sort()).toEqual([
      'kit/dial.json',
      'limits/l.json',
      'log/s-0001.json',
      'machines/m.json',
      'moves/v.json',
      'people/AB.json',
      'rounds/r.json',
      'surveys/s.json',
    ]);
    expect(surveyPaths(files, 'nowhere')).toBeUndefined();
  });
});
