import { OPENAPI } from '../../openapi';

/** Written once, when the program is built: putting it together where requests are answered would hold up the others. */
export const dynamic = 'force-static';

/** The description of this interface. */
export function GET(): Response {
  return Response.json(OPENAPI);
}
