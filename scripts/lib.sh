# Shared by ./start and ./test: what must be installed, the virtual environment, the front end, PostgreSQL.
# Sourced with ROOT set; stops with a sentence that says what is missing.

# Multiply and add are rounded apart, as WebAssembly does it: so the core says the same here and in a page, to the last digit.
export GLIBC_TUNABLES="${GLIBC_TUNABLES:-glibc.cpu.hwcaps=-FMA,-FMA4,-AVX2}"

say() { printf '%s\n' "$*" >&2; }
die() { say "zero dip: $*"; exit 1; }

# --- Debian packages ---------------------------------------------------------------------------------------------------

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else return 127; fi
}

want_packages() { # want_packages PACKAGE…: installs them, or says which are missing
  [ $# = 0 ] && return
  command -v apt-get >/dev/null || die "please install: $*"
  if [ "$(id -u)" != 0 ] && ! command -v sudo >/dev/null; then
    die "missing Debian packages: $*. Run as root: apt-get install $*"
  fi
  say "Installing Debian packages: $*"
  # Debian's package would start a database of its own; ours lives in the project's folder.
  as_root sh -c 'mkdir -p /etc/postgresql-common/createcluster.d &&
    [ -e /etc/postgresql-common/createcluster.d/zerodip.conf ] ||
    echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.d/zerodip.conf'
  # Nor does it start a web server of its own on port 80: packages ask this file before they start anything.
  local rule=/usr/sbin/policy-rc.d failed=""
  [ -e $rule ] && rule="" || as_root sh -c "printf '#!/bin/sh\nexit 101\n' > $rule && chmod 755 $rule"
  as_root apt-get -o DPkg::Lock::Timeout=300 update -qq >&2 || say "apt-get update failed; trying all the same"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -y -qq \
    --no-install-recommends "$@" >/dev/null || failed=1
  [ -z "$rule" ] || as_root rm -f $rule
  [ -z "$failed" ] || die "could not install: $*"
}

find_python() {
  for candidate in python3.11 python3.12 python3.13 python3; do
    command -v "$candidate" >/dev/null || continue
    "$candidate" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null && { echo "$candidate"; return; }
  done
  return 1
}

front_bin() { command -v nginx || ls /usr/sbin/nginx 2>/dev/null || true; }
postgres_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1; }

check_machine() { # check_machine [chromium]
  PYTHON=$(find_python) || die "Python 3.11 or newer is needed (Debian package: python3)"
  command -v node >/dev/null || die "Node 20 or newer is needed (Debian package: nodejs, or from its makers)"
  command -v npm >/dev/null || die "npm is needed (Debian package: npm)"
  local missing=()
  [ -n "$(postgres_bin)" ] && [ -x "$(postgres_bin)/initdb" ] || missing+=(postgresql)
  "$PYTHON" -c 'import venv, ensurepip' 2>/dev/null || missing+=(python3-venv)
  local known; known=$(/sbin/ldconfig -p)
  for library in libpango-1.0-0:libpango-1.0.so.0 libpangoft2-1.0-0:libpangoft2-1.0.so.0 libharfbuzz-subset0:libharfbuzz-subset.so.0; do
    [[ $known == *"${library#*:}"* ]] || missing+=("${library%%:*}") # WeasyPrint prints with them
  done
  [ -n "$(front_bin)" ] || missing+=(nginx)
  [ "${1:-}" != chromium ] || [ -x /usr/bin/chromium ] || missing+=(chromium)
  [ "$(id -u)" != 0 ] || command -v runuser >/dev/null || missing+=(util-linux)
  want_packages "${missing[@]}"
}

# --- Python and Node ---------------------------------------------------------------------------------------------------

fresh() { # fresh MARK FILE…: does the mark hold the files' hash?
  local mark=$1; shift
  [ -e "$mark" ] && [ "$(cat "$mark")" = "$(hash_of "$@")" ]
}
hash_of() { find "$@" -type f -not -name '*.pyc' -print0 | LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -c1-32; }

make_venv() { # make_venv base|dev
  local lock="$ROOT/requirements/$1.txt" mark="$ROOT/.venv/.$1"
  fresh "$mark" "$lock" && return
  [ "$1" = base ] && fresh "$ROOT/.venv/.dev" "$ROOT/requirements/dev.txt" && return
  say "Installing Python packages ($1)"
  [ -x "$ROOT/.venv/bin/python" ] || "$PYTHON" -m venv "$ROOT/.venv"
  "$ROOT/.venv/bin/python" -m pip install -q --disable-pip-version-check --require-hashes -r "$lock" >&2
  "$ROOT/.venv/bin/python" -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e "$ROOT/core" >&2
  hash_of "$lock" > "$mark"
}

make_node_modules() {
  local mark="$ROOT/web/node_modules/.done"
  fresh "$mark" "$ROOT/web/package-lock.json" && return
  say "Installing front-end packages"
  (cd "$ROOT/web" && npm ci --silent --no-fund --no-audit >&2)
  hash_of "$ROOT/web/package-lock.json" > "$mark"
}

build_front_end() {
  local parts=("$ROOT"/web/{src,public,scripts,package.json,package-lock.json,vite.config.ts,vite.sw.config.ts} "$ROOT/core/zerodip" "$ROOT/docs/openapi.json")
  fresh "$ROOT/web/dist/.done" "${parts[@]}" && return
  make_node_modules
  say "Building the front end"
  (cd "$ROOT/web" && npm run --silent build -- --logLevel warn >&2)
  hash_of "${parts[@]}" > "$ROOT/web/dist/.done"
}

manage() { (cd "$ROOT/server" && "$ROOT/.venv/bin/python" manage.py "$@"); }

# --- secrets and PostgreSQL ----------------------------------------------------------------------------------------------

random() { "$PYTHON" -c 'import secrets, sys; print(secrets.token_urlsafe(int(sys.argv[1])))' "$1"; }

port_free() {
  "$PYTHON" -c 'import socket, sys
with socket.socket() as s:
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try: s.bind(("127.0.0.1", int(sys.argv[1])))
    except OSError: sys.exit(1)' "$1"
}
free_port() { # free_port FIRST
  local port
  for port in $(seq "$1" $(($1 + 200))); do port_free "$port" && { echo "$port"; return; }; done
  die "no free port from $1 on"
}

make_secrets() { # writes $ZERODIP_DATA/secrets.env once
  mkdir -p "$ZERODIP_DATA"
  [ -e "$ZERODIP_DATA/secrets.env" ] && return
  (umask 077; cat > "$ZERODIP_DATA/secrets.env" <<SECRETS
ZERODIP_SECRET_KEY=$(random 48)
ZERODIP_DB_PASSWORD=$(random 24)
ZERODIP_DEMO_PASSWORD=$(random 9)
SECRETS
  )
}
secret() { sed -n "s/^$1=//p" "$ZERODIP_DATA/secrets.env" | tail -n 1; }
keep_secret() { sed -i "/^$1=/d" "$ZERODIP_DATA/secrets.env"; echo "$1=$2" >> "$ZERODIP_DATA/secrets.env"; }

as_postgres() { # PostgreSQL refuses to run as root
  local clean=(env -i "PATH=$(postgres_bin):/usr/bin:/bin" LC_ALL=C.UTF-8 HOME=/tmp)
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "${clean[@]}" "$@"); else (cd / && "${clean[@]}" "$@"); fi
}

data_key() { printf %s "$ZERODIP_DATA" | sha256sum | cut -c1-12; } # names what cannot lie in the data folder itself
pg_folder() { # inside the project, or under /var/tmp where the postgres user cannot reach the project
  local key; key=$(data_key)
  PG_SOCKETS="/tmp/zerodip-$key"
  PG_DATA="$ZERODIP_DATA/postgres"
  if [ "$(id -u)" = 0 ] && ! as_postgres test -x "$ZERODIP_DATA"; then PG_DATA="/var/tmp/zerodip-$key"; fi
  PG_LOG="$PG_DATA.log"
}

postgres_runs() { pg_folder; as_postgres pg_ctl -D "$PG_DATA" status >/dev/null 2>&1; }

start_postgres() {
  pg_folder
  mkdir -p "$PG_SOCKETS" "$PG_DATA"
  touch "$PG_LOG"
  [ "$(id -u)" != 0 ] || chown postgres: "$PG_SOCKETS" "$PG_DATA" "$PG_LOG"
  chmod 700 "$PG_SOCKETS" "$PG_DATA"
  [ -e "$PG_DATA/PG_VERSION" ] || {
    say "Creating the database"
    as_postgres initdb -D "$PG_DATA" -U postgres -E UTF8 --locale=C.UTF-8 --auth-local=trust \
      --auth-host=scram-sha-256 >/dev/null || die "the database could not be created in $PG_DATA; is the disk full?"
  }
  as_postgres pg_ctl -D "$PG_DATA" status >/dev/null 2>&1 && as_postgres pg_ctl -D "$PG_DATA" -m fast -w -s stop
  local port; port=$(secret ZERODIP_DB_PORT)
  { [ -n "$port" ] && port_free "$port"; } || { port=$(free_port 54310); keep_secret ZERODIP_DB_PORT "$port"; }
  as_postgres pg_ctl -D "$PG_DATA" -l "$PG_LOG" -w -s \
    -o "-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories='$PG_SOCKETS' ${PG_OPTIONS:-}" start ||
    die "PostgreSQL did not start (is the disk full?); see $PG_LOG"
  make_database
}

pg() { # pg TOOL …: a tool of PostgreSQL's, on our server, as its owner
  local tool=$1; shift
  as_postgres "$tool" -h "$PG_SOCKETS" -p "$(secret ZERODIP_DB_PORT)" -U postgres "$@"
}
ask() { pg psql -v ON_ERROR_STOP=1 -qtA "$@"; }

make_database() {
  [ "$(ask -c "select 1 from pg_database where datname = 'zerodip'")" = 1 ] && return
  ask -c "create role zerodip login createdb password '$(secret ZERODIP_DB_PASSWORD)'"
  ask -c "create database zerodip owner zerodip"
}

stop_postgres() { [ -z "${PG_DATA:-}" ] || as_postgres pg_ctl -D "$PG_DATA" -m fast -w -s stop >/dev/null 2>&1 || true; }

# --- web workers ---------------------------------------------------------------------------------------------------------

run_folder() { # short, for the sockets in it; the same for every start from one data folder
  RUN="${ZERODIP_RUN:-/tmp/zerodip-$(data_key)-web}"
}
make_run_folder() { # for us and the web server alone: whoever can reach the sockets can say for whom they ask
  mkdir -m 700 "$RUN" 2>/dev/null || { [ -O "$RUN" ] && [ ! -L "$RUN" ]; } || die "$RUN belongs to somebody else; remove it"
  if [ "$(id -u)" = 0 ]; then chgrp www-data "$RUN" && chmod 710 "$RUN"; else chmod 700 "$RUN"; fi
}
processes_in() { # those whose working folder is $1: so they are known even where whoever started them was killed
  local each at
  while read -r each at; do [ "$at" != "$1" ] || echo "${each#/proc/}"; done \
    < <(find /proc/[0-9]* -maxdepth 1 -name cwd -printf '%H %l\n' 2>/dev/null)
}
end_processes() { # end_processes FOLDER: asks, waits, insists
  local each
  for each in $(processes_in "$1"); do kill -TERM "$each" 2>/dev/null || true; done
  for _ in $(seq 120); do [ -n "$(processes_in "$1")" ] || return 0; sleep 0.1; done
  for each in $(processes_in "$1"); do kill -KILL "$each" 2>/dev/null || true; done
}
end_former_web() { # what is left of a serve that was killed, itself included
  local each
  for each in "$RUN" "$RUN"/{front,short,long,work,live,gauges,stand_in}; do end_processes "$each"; done
}
web_answers() { # web_answers ADDRESS PORT: with anything but "not yet"
  "$PYTHON" -c 'import socket, sys
with socket.create_connection((sys.argv[1], int(sys.argv[2])), 1) as s:
    s.sendall(b"GET /health/live HTTP/1.0\r\nHost: localhost\r\n\r\n")
    said = s.recv(99)
    sys.exit(not said or b" 503 " in said)' "$1" "$2" 2>/dev/null
}
