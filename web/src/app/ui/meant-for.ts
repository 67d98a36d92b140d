/** Whether a key is meant for a screen: pressed in it, or while the hand is nowhere yet, on its way to what the next drawing shows. */
export const meantFor = (host: HTMLElement, { target }: Event): boolean => target === document.body || host.contains(target as Node);
