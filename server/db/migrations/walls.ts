/** Statements that keep a table's rows to their shop and let the application read and add: every table gets them. */
export const wallOf = (table: string): string => `
alter table ${table} enable row level security;
alter table ${table} force row level security;
create policy own_shop on ${table}
  using (shop = (select nullif(current_setting('ocho.shop', true), '')::uuid))
  with check (shop = (select nullif(current_setting('ocho.shop', true), '')::uuid));
grant select, insert on ${table} to ocho_app;`
