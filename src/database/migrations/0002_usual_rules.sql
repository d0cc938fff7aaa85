-- The rules of the trade as they are usually given. Generic endings: RFC 3915 for the periods' notion, registry practice for
-- their days. Country endings are from memory and unverified: check them against the registry before trusting them.

insert into registry_fees (from_day, currency, minor, source) values
  ('2004-01-01', 'USD', 18, 'common practice'),
  ('2025-07-01', 'USD', 20, 'memory');

create function usual_terms(smallest int, stride int) returns jsonb language sql as $$
  select jsonb_build_object(
    'register', jsonb_build_object('least', smallest, 'greatest', 10, 'step', stride),
    'renew', jsonb_build_object('least', smallest, 'greatest', 10, 'step', stride),
    'transfer', jsonb_build_object('least', 1, 'greatest', 1, 'step', 1),
    'restore', jsonb_build_object('least', 1, 'greatest', 1, 'step', 1))
$$;

insert into policies (ending, late_days, redemption_days, restoring_days, deleting_days, refundable_days, terms, transfer_years,
  transfer_lock_days, ceiling_years, yearly_fee, source, source_note, source_date, verified)
values
  ('*', 45, 30, 7, 5, 5, usual_terms(1, 1), 1, 60, 10, true, 'common practice', 'Generic endings. Notions: RFC 3915; days: registry practice; redemption: Expired Registration Recovery Policy.', '2026-11-01', true),
  ('uk', 90, 0, 7, 0, 0, usual_terms(1, 1), 0, 0, 10, false, 'memory', 'No redemption and no deletion period.', '2026-11-01', false),
  ('nl', 0, 40, 7, 0, 0, usual_terms(1, 1), 0, 0, 10, false, 'memory', 'Forty days of quarantine from deletion.', '2026-11-01', false),
  ('eu', 0, 40, 7, 0, 0, usual_terms(1, 1), 1, 0, 10, false, 'memory', 'Forty days of quarantine from deletion.', '2026-11-01', false),
  ('de', 0, 30, 7, 0, 0, usual_terms(1, 1), 0, 0, 10, false, 'memory', 'Thirty days of redemption from deletion.', '2026-11-01', false),
  ('ai', 45, 30, 7, 5, 0, usual_terms(2, 2), 2, 60, 10, false, 'memory', 'Terms of at least two years, in steps of two.', '2026-11-01', false),
  ('io', 30, 30, 7, 5, 5, usual_terms(1, 1), 1, 60, 10, false, 'memory', '', '2026-11-01', false),
  ('co', 45, 30, 7, 5, 5, usual_terms(1, 1), 1, 60, 5, false, 'memory', 'Five years at the most.', '2026-11-01', false),
  ('me', 45, 30, 7, 5, 5, usual_terms(1, 1), 1, 60, 10, false, 'memory', '', '2026-11-01', false),
  ('us', 45, 30, 7, 5, 5, usual_terms(1, 1), 1, 60, 10, false, 'memory', '', '2026-11-01', false),
  ('ch', 0, 40, 7, 0, 0, usual_terms(1, 1), 0, 0, 10, false, 'memory', 'Forty days from deletion.', '2026-11-01', false),
  ('fr', 0, 30, 7, 0, 0, usual_terms(1, 1), 1, 0, 10, false, 'memory', 'Thirty days of redemption from deletion.', '2026-11-01', false),
  ('be', 0, 40, 7, 0, 0, usual_terms(1, 1), 1, 0, 10, false, 'memory', 'Forty days of quarantine from deletion.', '2026-11-01', false),
  ('se', 0, 60, 7, 0, 0, usual_terms(1, 1), 0, 0, 10, false, 'memory', 'Sixty days from deactivation to release.', '2026-11-01', false),
  ('ca', 30, 30, 7, 5, 0, usual_terms(1, 1), 1, 60, 10, false, 'memory', '', '2026-11-01', false);

drop function usual_terms(int, int);
