import pg from 'pg';
import type { Market } from './marketplace/types';
import type { Customer, Domain, Message, Receipt, Registrar, World } from './world/types';
import { makeWorld, nothingTouched } from './world/world';

/** Keeps the practice world in a database of its own, so that it outlives its process. */
export class Store {
  private constructor(private readonly pool: pg.Pool) {}

  static async open(url: string): Promise<Store> {
    const pool = new pg.Pool({ connectionString: url, max: 2, application_name: 'practice' });
    pool.on('error', (error) => console.error('practice database:', error.message));
    await pool.query(`
      create table if not exists world (now bigint not null, next_id bigint not null);
      create table if not exists domains (name text primary key, record jsonb not null);
      create table if not exists customers (registrar text primary key, record jsonb not null);
      create table if not exists messages (id bigint primary key, record jsonb not null);
      create table if not exists receipts (id bigint primary key, record jsonb not null);
      create table if not exists market (record jsonb not null, texts jsonb not null)`);
    return new Store(pool);
  }

  /** The world as it was last stored, or `null` when there is none yet. */
  async load(
    registrars: readonly Registrar[],
    { bids, grabs, buyers }: Pick<World, 'bids' | 'grabs' | 'buyers'>,
  ): Promise<World | null> {
    const { rows } = await this.pool.query<{ now: string; next: string }>('select now, next_id as next from world');
    const row = rows[0];
    if (!row) return null;
    const records = async <T>(table: string, order: string) =>
      (await this.pool.query<{ record: T }>(`select record from ${table} order by ${order}`)).rows.map(
        (one) => one.record,
      );
    const world = makeWorld(
      Number(row.now),
      registrars,
      await records<Customer>('customers', 'registrar'),
      await records<Domain>('domains', 'name'),
      bids,
      grabs,
    );
    const kept = (
      await this.pool.query<{ record: Market; texts: [string, string[]][] }>('select record, texts from market')
    ).rows[0];
    if (kept) {
      world.market = kept.record;
      for (const [name, texts] of kept.texts) world.texts.set(name, texts);
    }
    world.messages.push(...(await records<Message>('messages', 'id')));
    world.nextId = Number(row.next);
    world.buyers = buyers;
    return world;
  }

  /** Stores what has changed, in one transaction. */
  async save(world: World): Promise<void> {
    const { domains, customers, messages, acknowledged, receipts } = world.touched;
    world.touched = nothingTouched();
    const kept = [...domains].flatMap((name) => world.domains.get(name) ?? []);
    const gone = [...domains].filter((name) => !world.domains.has(name));
    const client = await this.pool.connect();
    const put = (table: string, key: string, records: readonly object[]) =>
      records.length === 0
        ? null
        : client.query(
            `insert into ${table} (${key}, record) select (r->>'${key}')::${key === 'id' ? 'bigint' : 'text'}, r from jsonb_array_elements($1::jsonb) r
             on conflict (${key}) do update set record = excluded.record`,
            [JSON.stringify(records)],
          );
    try {
      await client.query('begin');
      await client.query('delete from world');
      await client.query('insert into world values ($1, $2)', [world.now, world.nextId]);
      await client.query('delete from market');
      await client.query('insert into market values ($1, $2)', [
        JSON.stringify(world.market),
        JSON.stringify([...world.texts]),
      ]);
      await put(
        'domains',
        'name',
        kept.map((domain) => ({ ...domain })),
      );
      if (gone.length > 0) await client.query('delete from domains where name = any($1)', [gone]);
      await put(
        'customers',
        'registrar',
        [...customers].flatMap((id) => world.customers.get(id) ?? []),
      );
      await put('messages', 'id', messages);
      if (acknowledged.length > 0) await client.query('delete from messages where id = any($1)', [acknowledged]);
      await put('receipts', 'id', receipts);
      await client.query('commit');
    } catch (error) {
      await client.query('rollback').catch(() => undefined);
      throw error;
    } finally {
      client.release();
    }
  }

  /** Receipts of one name, as the registrar has them: for tests. */
  async receipts(name: string): Promise<Receipt[]> {
    return (
      await this.pool.query<{ record: Receipt }>("select record from receipts where record->>'name' = $1 order by id", [
        name,
      ])
    ).rows.map((row) => row.record);
  }

  close(): Promise<void> {
    return this.pool.end();
  }
}
