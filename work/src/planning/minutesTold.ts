/** Minutes as people say them: "40 min", "2 h", "1 h 30". */
export function minutesWords(minutes: number): string {
  const whole = Math.round(minutes);
  const [hours, rest] = [Math.floor(whole / 60), whole % 60];
  if (hours === 0) return `${rest} min`;
  if (hours >= 10) return `${Math.round(whole / 60)} h`;
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`;
}

const AS_TYPED = /^(?:(\d{1,4}(?:[.,]\d{1,2})?)\s*h(?:ours?)?)?\s*(?:(\d{1,5})\s*(?:m|min|minutes)?)?$/i;
const CLOCK = /^(\d{1,3}):([0-5]\d)$/;

/** Minutes as they are typed: "40", "40 min", "2 h", "1 h 30", "1:30", "1.5 h"; undefined where that is none. */
export function minutesTyped(typed: string): number | undefined {
  const text = typed.trim();
  const clock = CLOCK.exec(text);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  const found = text ? AS_TYPED.exec(text) : null;
  if (!found) return undefined;
  const [, hours, minutes] = found;
  return Math.round(Number((hours ?? '0').replace(',', '.')) * 60 + Number(minutes ?? 0));
}
