/** The page of a job. */
export const jobPath = (tag: string) => `/orders/jobs/${encodeURIComponent(tag)}`;
