import { perform } from '../../perform';

type Context = { params: Promise<{ path: string[] }> };

/** Whatever answers JSON stands in the table of operations (`../../operations`); files, feeds and lists have routes of their own. */
async function performed(request: Request, { params }: Context): Promise<Response> {
  return perform(request, (await params).path);
}

export { performed as DELETE, performed as GET, performed as PATCH, performed as POST, performed as PUT };
