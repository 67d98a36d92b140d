import { ChangeDetectionStrategy, Component, type OnDestroy, computed, inject, input, signal } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { DrawnUncertainty, QuantityInfo } from '@isometra/core';
import { Settings } from '../data/settings';
import { placedWords } from '../ui/say';
import type { MonteCarloWork } from '../workers/monte-carlo.worker';
import { Button } from '../ui/controls';
import { Progress } from '../ui/progress';
import { Notice } from '../ui/notice';

const DRAWS = 100_000;

/** A Monte Carlo of the call: in a worker, with progress, and it can be stopped. */
@Component({
  selector: 'iso-draws',
  imports: [Button, Notice, Progress],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (running()) {
      <p>
        <iso-progress [percent]="percent()" label="Draws done" />
        <button pButton type="button" (click)="stop()">Stop</button>
      </p>
    } @else {
      <button pButton type="button" class="plain" (click)="start()">{{ drawn() ? 'Draw again' : 'Try it with 100 000 draws' }}</button>
    }
    <iso-notice [text]="problem()" />
    @if (told(); as line) {
      <p class="soft">{{ line }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      font-size: 0.875rem;
    }
    p {
      display: flex;
      align-items: center;
      gap: 10px;
      padding-top: 4px;
    }
    iso-progress {
      flex: 1;
    }
  `,
})
export class Draws implements OnDestroy {
  readonly sheet = input.required<unknown>();
  readonly quantity = input.required<string>();
  readonly info = input.required<QuantityInfo>();

  private readonly settings = inject(Settings);
  private worker: Worker | undefined;
  private work: Remote<MonteCarloWork> | undefined;
  protected readonly percent = computed(() => Math.round((100 * this.done()) / DRAWS));
  protected readonly running = signal(false);
  protected readonly done = signal(0);
  protected readonly problem = signal('');
  protected readonly drawn = signal<DrawnUncertainty | null>(null);

  /** The interval that holds 95 of a hundred draws, with its directions. */
  protected readonly told = computed(() => {
    const drawn = this.drawn();
    if (!drawn) return '';
    const shown = { system: this.settings.system(), fineness: 'fine' as const };
    const say = (value: number) => placedWords(value, this.info(), shown, drawn.u * 2);
    return `95 of 100 draws of ${this.done().toLocaleString('en')} lie between ${say(drawn.low)} and ${say(drawn.high)}.`;
  });

  ngOnDestroy(): void {
    this.worker?.terminate();
  }

  protected async start(): Promise<void> {
    this.worker ??= new Worker(new URL('../workers/monte-carlo.worker', import.meta.url), { type: 'module' });
    this.work ??= wrap<MonteCarloWork>(this.worker);
    this.running.set(true);
    this.problem.set('');
    this.done.set(0);
    try {
      const result = await this.work.draw(
        this.sheet(),
        DRAWS,
        proxy((done: number) => this.done.set(done)),
      );
      this.drawn.set(result[this.quantity()] ?? null);
    } catch (error) {
      this.problem.set((error as Error).message);
    } finally {
      this.running.set(false);
    }
  }

  protected stop(): void {
    void this.work?.stop();
  }
}
