// Figures and sides as people say them: the same words on every screen and on paper.
export * from '@isometra/work/said';
