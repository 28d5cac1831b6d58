import { routeHandler } from '../../../../server/routeHandler';

/** Who is signed in here. */
export const GET = routeHandler('look', (_request, _parameters, person) => Promise.resolve(Response.json(person)));
