export const buildStates = ['planned', 'on-bench', 'finished', 'cancelled'] as const;
export type BuildState = (typeof buildStates)[number];

/** Of a build that is not over. */
export const openBuildStates = ['planned', 'on-bench'] as const satisfies readonly BuildState[];
