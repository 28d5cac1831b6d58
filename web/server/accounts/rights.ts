/** What a person of the shop is. */
export const ROLES = ['owner', 'planner', 'crew', 'viewer', 'customer'] as const;
export type Role = (typeof ROLES)[number];

/**
 * What may be done, and by whom: the one table. look: see jobs, sheets, floor and shop. report: say what was done, read or measured. plan: change
 * jobs and the shop, release. people: let people in and out. answer: see what a customer sees of a job, and answer what is asked there; a customer
 * has one job, and no other (`expectJob`).
 */
export const RIGHTS = {
  look: ['owner', 'planner', 'crew', 'viewer'],
  report: ['owner', 'planner', 'crew'],
  plan: ['owner', 'planner'],
  people: ['owner'],
  answer: ['owner', 'planner', 'customer'],
} as const satisfies Record<string, readonly Role[]>;
export type Right = keyof typeof RIGHTS;

export const mayDo = (role: Role, right: Right): boolean => (RIGHTS[right] as readonly Role[]).includes(role);

/** What a role is for, for who gives it. */
export const ROLE_WORDS: Record<Role, string> = {
  owner: 'plans, and lets people in',
  planner: 'plans looms, changes the shop, releases',
  crew: 'ticks work, measures at the car, takes photos',
  viewer: 'looks on',
  customer: 'sees how one job stands, and answers what is asked of it',
};

/** characters; digits carry the daily work */
export const SHORTEST_PASSWORD = 10;

/** Who does something, as pages and the server know it. */
export interface Person {
  id: string;
  name: string;
  role: Role;
  /** the one job of a customer; null: somebody of the shop */
  jobId: string | null;
}
