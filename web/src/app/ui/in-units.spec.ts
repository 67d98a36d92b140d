import { inUnits } from './in-units';

describe('sentences of the core in the reader’s units', () => {
  const inch = { system: 'inch', fineness: 'coarse' } as const;
  const mm = { system: 'mm', fineness: 'coarse' } as const;

  it('in inches speak neither of mm nor of µm', () => {
    const notes = [
      'What was swept does not close as a circle (12.7 µm): it is out of round. Move less than 25.4 mm.',
      'A 12 mm rod 250 mm out of the chuck droops over 0.02 mm.',
      'The bed has a twist of 40 µm/m per m, and leans 80 µm/m.',
      'The needle goes from 3 to 25.4 µm.',
    ].map((text) => inUnits(text, inch));
    for (const text of notes) expect(text).not.toMatch(/mm|µm/);
    expect(notes[0]).toContain('(0.5 thou)');
    expect(notes[0]).toContain('1.00 in');
    expect(notes[3]).toMatch(/from 0\.1 thou to 1\.0 thou/);
  });

  it('in mm keep lengths as they are said, and show errors as all others are shown', () => {
    expect(inUnits('differ by 17.8 µm at 600 mm', mm)).toBe('differ by 0.018 mm at 600 mm');
    expect(inUnits('one of these: 0 mm; 600 mm', mm)).toBe('one of these: 0 mm; 600 mm');
    expect(inUnits('0.02 mm in 300 mm', mm)).toBe('0.020 mm in 300 mm');
  });

  it('leave everything else alone', () => {
    for (const text of ['press 3 N', '20 mm² of it', 'round 5, 3 places', 'half of 4 divisions', 'M12 bolts'])
      expect(inUnits(text, inch)).toBe(text);
  });
});
