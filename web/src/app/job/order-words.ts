/** Which of two moves comes first: of height and side one undoes the other; bolts come before a register. */
export type OrderCode = 'bolts-first' | 'control-after' | 'first' | 'after';

/** @param other the other quantity, as it is called. */
export function orderWords(code: OrderCode, other: string): string {
  switch (code) {
    case 'bolts-first':
      return 'Bolts first: on them it is tapped over in this direction too. The register comes after, from a new round.';
    case 'control-after':
      return `${other} comes after this, from a new round: the control cures that.`;
    case 'first':
      return `${other} first: opening the joint loses this.`;
    case 'after':
      return `Opening the joint loses the ${other.toLowerCase()}. It comes after, from a new round.`;
  }
}
