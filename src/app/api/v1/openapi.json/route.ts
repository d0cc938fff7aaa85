import { OPENAPI } from '../../openapi';

/** The description of this interface. */
export function GET(): Response {
  return Response.json(OPENAPI);
}
