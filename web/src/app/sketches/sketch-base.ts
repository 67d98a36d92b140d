import { Directive, input } from '@angular/core';
import type { SketchInputs, SketchMark, SketchResult } from './model';

/** What every sketch is given. */
@Directive()
export abstract class SketchBase {
  readonly setup = input.required<SketchInputs['setup']>();
  readonly marks = input.required<readonly SketchMark[]>();
  readonly result = input.required<SketchResult>();
  readonly pick = input.required<SketchInputs['pick']>();
  readonly set = input<SketchInputs['set']>(() => undefined);
  readonly picture = input.required<SketchInputs['picture']>();
}
