-- What programs sent with a key, and what they were answered: the same request again is answered the same, and not carried out twice.
create table keyed_requests (
  key text primary key check (length(key) between 1 and 200),
  sha256 bytea not null,
  begun_at timestamptz not null,
  status smallint,
  answer text
);
create index keyed_requests_begun on keyed_requests (begun_at);
