# Backups: all that matters lies in one database, so a dump is consistent by itself. Sourced by ./zolvan and by its test.
# Needs PG_BIN, PG_PORT, PGPASSWORD, psql_quiet, has_database, say and fail (see database.sh).

# Worked out anew when it is missing; the schedule is made from the jobs.
NOT_KEPT=(--exclude-table-data=chip --exclude-table-data=scheduled_tasks --exclude-table-data='spring_session*')

count_rows="select string_agg(format('\"%s\": %s', t, n), ', ' order by t) from (
  select c.relname as t, (xpath('/row/n/text()', query_to_xml(format('select count(*) as n from %I', c.relname), false, true, '')))[1]::text as n
  from pg_class c where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace
    and c.relname not in ('chip', 'scheduled_tasks') and c.relname not like 'spring_session%') counts"

schema_of() { # $1: database; the number of its newest migration
  psql_quiet -d "$1" -c "select coalesce(max(version::int), 0) from flyway_schema_history where success" 2>/dev/null || printf 0
}

# A dump and, beside it, what it holds, counted in the very snapshot that was dumped.
backup_database() { # $1: database, $2: file
  local file=$2 part=$2.part snapshot rows schema
  umask 077
  rm -f "$part"
  coproc SNAPSHOT { psql_quiet -d "$1" 2>&1; }
  local from=${SNAPSHOT[0]} to=${SNAPSHOT[1]} of=$SNAPSHOT_PID
  printf '%s\n' "begin isolation level repeatable read read only;" "select pg_export_snapshot();" >&"$to"
  read -r snapshot <&"$from" || fail "the database does not answer"
  "$PG_BIN/pg_dump" -h 127.0.0.1 -p "$PG_PORT" -U zolvan -Fc -Z1 --snapshot="$snapshot" "${NOT_KEPT[@]}" -f "$part" "$1" ||
    { rm -f "$part"; fail "the backup could not be written to $file"; }
  printf '%s;\n' "$count_rows" >&"$to"
  read -r rows <&"$from" || fail "the rows could not be counted"
  printf 'commit;\n\\q\n' >&"$to"
  wait "$of" 2>/dev/null || true
  schema=$(schema_of "$1")
  "$PG_BIN/pg_restore" --list "$part" >/dev/null || fail "the backup can't be read back; nothing was kept"
  cat >"$file.json.part" <<JSON
{
  "schema": $schema,
  "made": "$(date -u +%Y-%m-%dT%H:%M:%SZ)",
  "bytes": $(stat -c %s "$part"),
  "sha256": "$(sha256sum "$part" | cut -d' ' -f1)",
  "rows": {$rows}
}
JSON
  sync "$part" "$file.json.part"
  mv "$file.json.part" "$file.json"
  mv "$part" "$file"
}

noted() { sed -n "s/^ *\"$2\": *\"\{0,1\}\([^\",]*\).*/\1/p" "$1.json" | head -n 1; }

put_back() { # $1: file, $2: an empty database
  "$PG_BIN/pg_restore" -h 127.0.0.1 -p "$PG_PORT" -U zolvan -j 2 --exit-on-error --no-owner -d "$2" "$1"
}

# Everything is checked before the restored database takes the other one's place, which is kept under another name.
restore_database() { # $1: file, $2: database, $3: number of the newest migration that this Zolvan knows
  local file=$1 fresh=${2}_restoring before wrong
  drop_fresh() { psql_quiet -d postgres -c "drop database $fresh with (force)"; }
  [ -f "$file" ] || fail "there is no file $file"
  [ -f "$file.json" ] || fail "$file.json, which says what the backup holds, lies not beside it"
  [ "$(noted "$file" sha256)" = "$(sha256sum "$file" | cut -d' ' -f1)" ] ||
    fail "$file is damaged: it is not what was written when the backup was made. Nothing was changed."
  [ "$(noted "$file" schema)" -le "$3" ] ||
    fail "$file was made by a newer Zolvan. Update Zolvan first; nothing was changed."
  psql_quiet -d postgres -c "drop database if exists $fresh with (force)" -c "create database $fresh" 2>/dev/null
  if ! put_back "$file" "$fresh"; then
    drop_fresh
    fail "the backup could not be put back; nothing was changed"
  fi
  [ "$(psql_quiet -d "$fresh" -c "$count_rows")" = "$(sed -n 's/^ *"rows": {\(.*\)}$/\1/p' "$file.json")" ] ||
    { drop_fresh; fail "what was put back is not all that the backup holds; nothing was changed"; }
  wrong=$(psql_quiet -d "$fresh" -c "select count(*) from asset a where sha256 is not null and sha256 <> encode(sha256(
    (select string_agg(c.bytes, ''::bytea order by c.seq) from asset_chunk c where c.asset_id = a.id)), 'hex')")
  [ "$wrong" = 0 ] || { drop_fresh; fail "$wrong files in the backup are damaged; nothing was changed"; }
  if has_database "$2"; then
    before=${2}_before_$(date -u +%Y%m%d_%H%M%S)
    psql_quiet -d postgres -c "alter database $2 rename to $before" -c "alter database $fresh rename to $2"
    say "What was there before is kept in the database as $before."
  else
    psql_quiet -d postgres -c "alter database $fresh rename to $2"
  fi
}
