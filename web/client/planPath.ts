/** Where the plan of a version of a job is kept, for a page to ask for ahead. */
export const toPlanPath = (id: string, version: number): string => `/api/jobs/${id}/plan?version=${version}`;
