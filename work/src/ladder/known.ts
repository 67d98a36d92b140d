import type { HeightAt } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { factsOf, factsOfEach, profilesOf } from '../sheets/facts.js';

/** What is known of a lathe at one time, µm and µm/m; undefined where nothing has been measured. */
export interface KnownLathe {
  readonly twistPerMetre?: number;
  readonly axisSlopeH?: number;
  readonly axisSlopeV?: number;
  readonly tailH?: number;
  readonly tailV?: number;
  /** Quill: + points toward the operator, + rises, toward its free end. */
  readonly quillH?: number;
  readonly quillV?: number;
  /** + faces hollow. */
  readonly facing?: number;
  /** Each way whose straightness was read: heights off its line. The one that was read last stands last. */
  readonly ways?: readonly { readonly name: string; readonly heights: readonly HeightAt[] }[];
}

/** What of a lathe is drawn, by the names under which the checks make it known. */
const LATHE = ['twistPerMetre', 'axisSlopeH', 'axisSlopeV', 'tailH', 'tailV', 'quillH', 'quillV', 'facing'] as const;

/** What was known after the rounds so far: the latest word on each. */
export function knownFrom(rounds: readonly RoundHead[]): KnownLathe {
  const ways = profilesOf(rounds, 'way');
  return { ...factsOf(rounds, LATHE), ...(ways.length && { ways }) };
}

/** What is known of a mill at one time, µm/m; undefined where nothing has been measured. */
export interface KnownMill {
  /** + rises toward the right, toward the column. */
  readonly tableX?: number;
  readonly tableY?: number;
  /** + where the angle between the motions to the right and to the column is obtuse. */
  readonly squareness?: number;
  /** + leans to the right, toward the operator. */
  readonly leanX?: number;
  readonly leanY?: number;
  /** + its right end runs toward the operator: the middle slot, the fixed jaw. */
  readonly slot?: number;
  readonly vice?: number;
  /** + leans to the right, nods toward the operator. */
  readonly tilt?: number;
  readonly nod?: number;
}

/** What of a mill is drawn, by the names under which the checks make it known. */
export const MILL_FACTS = ['tableX', 'tableY', 'squareness', 'leanX', 'leanY', 'slot', 'vice', 'tilt', 'nod'] as const;

/** What was known of a mill after the rounds so far: the latest word on each. */
export const knownMill = (rounds: readonly RoundHead[]): KnownMill => factsOf(rounds, MILL_FACTS);

/** A pocket of the turret: how far it stands off the axis, µm, + toward the operator, + high. */
export interface KnownPocket {
  readonly name: string;
  readonly h?: number;
  readonly v?: number;
}

/** What is known of a turning centre at one time, µm and µm/m; undefined where nothing has been measured. */
export interface KnownTurning {
  readonly twistPerMetre?: number;
  readonly axisSlopeH?: number;
  readonly axisSlopeV?: number;
  /** Each pocket of the turret that was swept, by its station; the one that was swept last stands last. */
  readonly pockets?: readonly KnownPocket[];
  /** Where the bush and the sub-spindle stand off the axis: + toward the operator, + high. */
  readonly bushH?: number;
  readonly bushV?: number;
  readonly subH?: number;
  readonly subV?: number;
  readonly tailH?: number;
  readonly tailV?: number;
}
const TURNING = ['twistPerMetre', 'axisSlopeH', 'axisSlopeV', 'bushH', 'bushV', 'subH', 'subV', 'tailH', 'tailV'] as const;
const POCKET = ['turretH', 'turretV'] as const;
/** By which names something is drawn of a turning centre. */
export const TURNING_FACTS = [...TURNING, ...POCKET];

/** What was known of a turning centre after the rounds so far: the latest word on each, on every station. */
export function knownTurning(rounds: readonly RoundHead[]): KnownTurning {
  const pockets = factsOfEach(rounds, POCKET).map(({ name, facts: { turretH: h, turretV: v } }): KnownPocket => ({
    name,
    ...(h !== undefined && { h }),
    ...(v !== undefined && { v }),
  }));
  return { ...factsOf(rounds, TURNING), ...(pockets.length && { pockets }) };
}
