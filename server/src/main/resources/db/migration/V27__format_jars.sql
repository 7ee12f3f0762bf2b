-- Jars with formats of plugins that the user has confirmed, known by what is in them.
create table format_jar (
  sha256 text primary key,
  name text not null,
  confirmed_at timestamptz not null default now()
);
