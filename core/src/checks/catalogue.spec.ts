import { planCheck, SAMPLE_SETUPS } from '../testing/sampleSetups.js';
import type * as z from 'zod';
import { FaultError } from '../input/faults.js';
import { fieldInfo } from '../input/fields.js';
import { practiceRound } from '../practice/models.js';
import { CHECKS } from './registry.js';
import { MOVES } from '../moves/registry.js';
import { solve } from '../solve/solve.js';

/** What a sheet comes to: its values, or the places that are refused. */
function said(sheet: Record<string, unknown>): unknown {
  try {
    return Object.entries(solve(sheet).quantities).map(([name, { value }]) => [name, value]);
  } catch (error) {
    if (error instanceof FaultError) return error.faults.map(({ path }) => path);
    throw error;
  }
}

describe('every check of the catalogue', () => {
  for (const check of CHECKS.values()) {
    describe(check.id, () => {
      it('is whole: words, cautions, what it cannot see, and rungs that exist', () => {
        for (const text of [check.title, check.question, check.choose, check.counting]) expect(text).toBeTruthy();
        expect(check.cautions.length).toBeGreaterThan(0);
        expect(check.cannotSee.length).toBeGreaterThan(0);
        for (const id of [...check.hangsOn, ...(check.after ?? [])]) expect(CHECKS.has(id)).withContext(id).toBeTrue();
        for (const { plus, minus } of Object.values(check.corrections))
          for (const kind of [...plus, ...minus]) expect(MOVES.has(kind)).withContext(kind).toBeTrue();
        for (const { quantity } of check.knows ?? []) expect(check.quantities[quantity]).withContext(quantity).toBeDefined();
        for (const [name, info] of Object.entries(check.quantities)) {
          expect(info.label).withContext(name).toBeTruthy();
          if (info.limit && !info.magnitude) expect(info.words).withContext(`${name} has direction words`).toBeDefined();
        }
        for (const name of Object.keys(check.corrections)) expect(check.quantities[name]).withContext(name).toBeDefined();
      });

      it('its own plan gives places whose readings it takes, and they give a call', () => {
        const sheet = planCheck(check);
        const finding = solve(sheet);
        expect(Object.keys(finding.quantities).length).withContext(JSON.stringify(finding.notes)).toBeGreaterThan(0);
        for (const [name, quantity] of Object.entries(finding.quantities)) {
          expect(check.quantities[name]).withContext(`${name} is described`).toBeDefined();
          expect(Number.isFinite(quantity.value)).withContext(name).toBeTrue();
          expect(quantity.expanded === null || quantity.expanded >= 0).toBeTrue();
        }
      });

      it('without readings says that too few were taken', () => {
        const { quantities, notes } = solve({ ...planCheck(check), readings: [] });
        expect(quantities).toEqual({});
        expect(notes.map((note) => note.code)).toContain('too-few-readings');
      });

      it('a choice that is left out counts as the first of its choices: what a form shows is what is reckoned with', () => {
        const { sheet } = practiceRound(check.id, 7, { perfect: true });
        const setup = (sheet['setup'] ?? {}) as Record<string, unknown>;
        for (const [key, schema] of Object.entries(check.setup.shape)) {
          const [first] = fieldInfo(schema as z.ZodType)?.choices ?? [];
          // Of several none is taken where nothing is said.
          if ((schema as z.ZodType).safeParse([]).success) continue;
          if (!first || !(schema as z.ZodType).safeParse(undefined).success) continue;
          const { [key]: _, ...without } = setup;
          const left = said({ ...sheet, setup: without });
          expect(left)
            .withContext(`${key} left out, and ${first.value}`)
            .toEqual(said({ ...sheet, setup: { ...without, [key]: first.value } }));
        }
      });

      it('refuses a key it does not know', () => {
        const sheet = planCheck(check);
        expect(() => solve({ ...sheet, setup: { ...SAMPLE_SETUPS[check.id], wrongKey: 1 } })).toThrowMatching(
          (error) => error.faults[0].path === 'setup.wrongKey',
        );
      });
    });
  }
});
